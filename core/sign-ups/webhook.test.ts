import { createHmac } from 'node:crypto'
import { expect, test } from 'vitest'
import { DAY, HOUR, MINUTE } from '../time'
import { nextTry, signedHeaders } from './webhook'

test('a call carries its time, and the HMAC over time and body', () => {
  const body = '{"event":"sign-up confirmed"}'
  const expected = createHmac('sha256', 'key').update(`1764000000.${body}`).digest('hex')
  expect(signedHeaders('key', body, 1_764_000_000_999)).toEqual({
    'Satchel-Time': '1764000000',
    'Satchel-Signature': `sha256=${expected}`,
  })
})

test('what fails is tried again for a day, each time later', () => {
  const tried: number[] = []
  let at: number | null = 0
  for (let tries = 1; at !== null; tries++) {
    tried.push(at)
    at = nextTry(tries, 0, at)
  }
  expect(tried.slice(0, 4)).toEqual([0, MINUTE, 5 * MINUTE, 21 * MINUTE])
  expect(tried.at(-1)).toBeLessThanOrEqual(DAY)
  expect(tried.at(-1)).toBeGreaterThan(DAY - 6 * HOUR)
})
