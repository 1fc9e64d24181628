import { expect, test } from 'vitest'
import { DAY } from '../time'
import { deviceOf, sessionEnds } from '.'

test('a session is over after 30 days without use, and after 90 in any case', () => {
  expect(sessionEnds({ began: 0, used: 0 })).toBe(30 * DAY)
  expect(sessionEnds({ began: 0, used: 50 * DAY })).toBe(80 * DAY)
  expect(sessionEnds({ began: 0, used: 89 * DAY })).toBe(90 * DAY)
})

test.each([
  ['Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0', 'Firefox on Linux'],
  [
    'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36 Edg/140.0',
    'Edge on Windows',
  ],
  [
    'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.0 Mobile/15E148 Safari/604.1',
    'Safari on iPhone',
  ],
  ['curl/8.5.0', 'Another program'],
  ['', 'Another program'],
])('%s is %s', (agent, words) => expect(deviceOf(agent)).toBe(words))
