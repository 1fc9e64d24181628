import { expect, test } from 'vitest'
import { bodyProblem, mostBytes } from './body-limits'

test('a form is small; what brings files or letters may be larger, each as much as it needs', () => {
  expect(mostBytes('/api/session')).toBe(16 * 1024)
  expect(mostBytes('/api/lists')).toBe(256 * 1024)
  expect(mostBytes('/api/pictures')).toBe(20 * 1024 ** 2)
  expect(mostBytes('/api/mailings/12/letter')).toBe(4 * 1024 ** 2)
  expect(mostBytes('/api/mailings/12/plan')).toBe(256 * 1024)
})

test('what is too large is refused by its length alone; what does not say its length is, too', () => {
  expect(bodyProblem('/api/session', { 'content-length': '200000000' })).toMatchObject({
    statusCode: 413,
    message: 'This is larger than 16 kB, the most that is taken here.',
  })
  expect(bodyProblem('/api/session', { 'content-length': '90' })).toBeNull()
  expect(bodyProblem('/api/session', { 'transfer-encoding': 'chunked' })).toMatchObject({
    statusCode: 411,
  })
  expect(bodyProblem('/api/imports/file', { 'transfer-encoding': 'chunked' })).toBeNull()
  expect(bodyProblem('/api/mailings/3/pause', {})).toBeNull()
})
