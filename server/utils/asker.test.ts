import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test, vi } from 'vitest'
import { askLong } from './asker'

/** An asker that answers what it is asked, except that some questions hang and some end it. */
const standIn = `
process.send({ ready: true })
process.on('message', ({ id, question }) => {
  if (question.of === 'hang') return
  if (question.of === 'die') process.exit(1)
  if (question.of === 'fault') return process.send({ id, problem: 'That can’t be counted.' })
  setTimeout(() => process.send({ id, answer: { pid: process.pid, of: question.of } }), 20)
})
`
const before = process.argv[1]!
beforeAll(() => {
  const folder = mkdtempSync(join(tmpdir(), 'satchel-asker-'))
  mkdirSync(join(folder, 'processes'))
  writeFileSync(join(folder, 'processes', 'asker.mjs'), standIn)
  process.argv[1] = join(folder, 'server', 'index.mjs')
  vi.stubGlobal('createError', (of: { statusCode: number; message: string }) =>
    Object.assign(new Error(of.message), of),
  )
})
afterAll(() => {
  process.argv[1] = before
  vi.unstubAllGlobals()
})

const asked = (of: string, from: string | null = null) =>
  askLong('sizes' as never, of as never, from) as unknown as Promise<{ pid: number; of: string }>

test('questions are answered one after the other, by one process', async () => {
  const answers = await Promise.all([asked('a'), asked('b'), asked('c')])
  expect(answers.map(({ of }) => of)).toEqual(['a', 'b', 'c'])
  expect(new Set(answers.map(({ pid }) => pid)).size).toBe(1)
})

test('what may be known later never holds up a count', async () => {
  const later = askLong('renditions' as never, 'hang' as never) as Promise<unknown>
  later.catch(() => {})
  expect(await asked('a')).toMatchObject({ of: 'a' })
})

test('a newer question takes the place of one that has not begun, of the same asker only', async () => {
  const first = asked('first', 'tab 1')
  const old = asked('old', 'tab 1')
  const other = asked('other', 'tab 2')
  const newest = asked('newest', 'tab 1')
  await expect(old).rejects.toMatchObject({ statusCode: 409 })
  expect((await first).of).toBe('first')
  expect((await other).of).toBe('other')
  expect((await newest).of).toBe('newest')
})

test('a question that can’t be answered says why; the next one is answered', async () => {
  await expect(asked('fault')).rejects.toMatchObject({
    statusCode: 503,
    message: 'That can’t be counted.',
  })
  expect((await asked('after')).of).toBe('after')
})

test('a process that ends is replaced', async () => {
  const { pid } = await asked('a')
  await expect(asked('die')).rejects.toMatchObject({ message: /interrupted/ })
  expect((await asked('b')).pid).not.toBe(pid)
})
