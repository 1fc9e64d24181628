import { expect, test } from 'vitest'
import { deviceOf, programOf } from './agents'

const webkit = 'AppleWebKit/605.1.15 (KHTML, like Gecko)'

test.each([
  [
    `Mozilla/5.0 (iPhone; CPU iPhone OS 17_0 like Mac OS X) ${webkit} Mobile/15E148`,
    'phone',
    'program',
  ],
  [
    `Mozilla/5.0 (iPhone; CPU iPhone OS 17_0 like Mac OS X) ${webkit} Version/17.0 Mobile/15E148 Safari/604.1`,
    'phone',
    'browser',
  ],
  [
    'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/120.0 Safari/537.36',
    'computer',
    'browser',
  ],
  ['Mozilla/5.0 (X11; Linux x86_64; rv:121.0) Gecko/20100101 Firefox/121.0', 'computer', 'browser'],
  ['Mozilla/5.0 (Windows NT 10.0; Win64; x64) Quillreader/12.0', 'computer', 'program'],
  ['Mozilla/5.0 (iPad; CPU OS 16_0 like Mac OS X) AppleWebKit/605.1.15', 'tablet', 'program'],
  ['Mozilla/5.0', 'unknown', 'unknown'],
  ['', 'unknown', 'unknown'],
  ['Postlerche/3.1 (Linux; Android 13)', 'phone', 'program'],
])('%s is a %s, read in a %s', (agent, device, program) => {
  expect(deviceOf(agent)).toBe(device)
  expect(programOf(agent)).toBe(program)
})
