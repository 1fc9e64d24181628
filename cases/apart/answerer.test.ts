import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, expect, test } from 'vitest'
import { answerer, Unanswered } from './answerer'
import { processorTime } from './processor-time'

/** A process that answers what it is asked, but for what spins, sleeps, eats or dies. */
const program = `
process.send({ ready: true })
process.on('message', ({ id, question }) => {
  if (question === 'spin') for (;;) {}
  if (question === 'die') process.exit(1)
  if (question === 'eat') { const all = []; for (;;) all.push(new Array(1e6).fill(Math.random())) }
  const answer = { pid: process.pid, question }
  setTimeout(() => process.send({ id, answer }), question === 'sleep' ? 1500 : 5)
})
`
const file = join(mkdtempSync(join(tmpdir(), 'satchel-answerer-')), 'answers.mjs')
writeFileSync(file, program)
const made: ReturnType<typeof answerer>[] = []
afterEach(() => made.splice(0).forEach((one) => one.stop()))
function asking(longest = 600, memory = 64) {
  const one = answerer({
    entry: () => file,
    longest,
    memory,
    tooLong: 'Too long.',
    patience: 1_000,
  })
  made.push(one)
  return (question: string, from: string | null = null) =>
    one.ask(question, from) as Promise<{ pid: number; question: string }>
}

test('a question that spins is ended; those behind it are answered, by another process', async () => {
  const ask = asking()
  const { pid } = await ask('a')
  const [spinning, behind] = [ask('spin'), ask('b')]
  await expect(spinning).rejects.toMatchObject({ why: 'too long', message: 'Too long.' })
  expect((await behind).pid).not.toBe(pid)
})

test('what counts is the processor’s time, not that of the clock', async () => {
  const ask = asking(1_000)
  expect((await ask('sleep')).question).toBe('sleep')
  expect(processorTime(process.pid)).toBeGreaterThan(0)
  expect(processorTime(2 ** 30)).toBeNull()
})

test('a question that eats all its memory ends its process and nothing else', async () => {
  const ask = asking(60_000)
  const eating = ask('eat')
  await expect(eating).rejects.toBeInstanceOf(Unanswered)
  expect((await ask('after')).question).toBe('after')
})

test('a process that dies is begun again; a newer question replaces one that has not begun', async () => {
  const ask = asking()
  await expect(ask('die')).rejects.toMatchObject({ why: 'fault' })
  const [first, old, other, newest] = [
    ask('first'),
    ask('old', 'a'),
    ask('x', 'b'),
    ask('new', 'a'),
  ]
  await expect(old).rejects.toMatchObject({ why: 'replaced' })
  expect((await Promise.all([first, other, newest])).map(({ question }) => question)).toEqual([
    'first',
    'x',
    'new',
  ])
})
