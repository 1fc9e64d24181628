import { fork, type ChildProcess } from 'node:child_process'
import { dirname, join } from 'node:path'
import type { Question, Questions } from '../asker/questions'

interface Waiting {
  question: Question
  from: string | null
  done: (answer: unknown) => void
  failed: (error: unknown) => void
}

/** A question about people may take so long; then its process is ended and another one started. */
const counting = longAsker(
  20_000,
  'This takes too long to count. Leave out a rule, or ask for a shorter time.',
)
/** Queries of users' own have a process of their own, so that none of them holds up the counting. */
const querying = longAsker(
  10_000,
  'This query takes longer than 10 seconds. Ask for less, or limit it in time.',
)

/** What may be known a moment later has a process of its own, too, so that counts never wait for it. */
const reckoning = longAsker(30_000, 'This takes too long to reckon.')
const askerOf: Partial<Record<keyof Questions, typeof counting>> = {
  sql: querying,
  sqlPeople: querying,
  pastSizes: reckoning,
  renditions: reckoning,
  proof: reckoning,
  load: reckoning,
}

/**
 * Asks the asker process. `from` says who asks and what for: a newer question of the same replaces one
 * that has not begun. Throws 409 where that happened, and 503 where the answer takes too long.
 */
export function askLong<K extends keyof Questions>(
  ask: K,
  of: Parameters<Questions[K]>[1],
  from: string | null = null,
): Promise<ReturnType<Questions[K]>> {
  const asker = askerOf[ask] ?? counting
  return asker({ ask, of } as Question, from) as Promise<ReturnType<Questions[K]>>
}

/** A process that answers one question after the other, none longer than `longest` ms. */
function longAsker(longest: number, tooLong: string) {
  let asker: ChildProcess | null = null
  let running: (Waiting & { id: number; timer: NodeJS.Timeout }) | null = null
  const queue: Waiting[] = []
  let ids = 0

  function next() {
    const waiting = running ? undefined : queue.shift()
    if (!waiting) return
    const id = ++ids
    const timer = setTimeout(giveUp, longest)
    running = { ...waiting, id, timer }
    askerProcess().send({ id, question: waiting.question })
  }

  function giveUp() {
    const late = asker
    asker = null
    late?.kill('SIGKILL')
    settle({ problem: tooLong })
  }

  function settle(came: { answer?: unknown; problem?: string }) {
    if (running) {
      clearTimeout(running.timer)
      if (came.problem === undefined) running.done(came.answer)
      else running.failed(createError({ statusCode: 503, message: came.problem }))
      running = null
    }
    next()
  }

  function askerProcess(): ChildProcess {
    if (asker?.connected) return asker
    const started = fork(join(dirname(process.argv[1]!), '..', 'processes', 'asker.mjs'), {
      env: process.env,
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    })
    started.on('message', (message: { id: number; answer?: unknown; problem?: string }) => {
      if (message.id === running?.id) settle(message)
    })
    started.on('exit', () => {
      if (asker !== started) return
      asker = null
      settle({ problem: 'The counting was interrupted. Try again.' })
    })
    return (asker = started)
  }

  return (question: Question, from: string | null): Promise<unknown> =>
    new Promise((done, failed) => {
      const before = from === null ? -1 : queue.findIndex((waiting) => waiting.from === from)
      if (before >= 0)
        queue
          .splice(before, 1)[0]!
          .failed(createError({ statusCode: 409, message: 'A newer question took its place.' }))
      queue.push({ question, from, done, failed })
      next()
    })
}
