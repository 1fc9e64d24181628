import { fork, type ChildProcess } from 'node:child_process'
import { processorTime } from './processor-time'

interface Waiting {
  question: unknown
  from: string | null
  done: (answer: unknown) => void
  failed: (error: Unanswered) => void
}

/** Why a question has no answer: a newer one took its place, it takes too long, or it went wrong. */
export class Unanswered extends Error {
  constructor(
    readonly why: 'replaced' | 'too long' | 'fault',
    message: string,
  ) {
    super(message)
  }
}

interface Settings {
  /** The file of the process. It answers `{ id, question }` with `{ id, answer }` or `{ id, problem }`, and says `ready` when it begins. */
  entry: () => string
  /** So much of the processor's time a question may take, ms. */
  longest: number
  tooLong: string
  /** Memory that it may take, MB. */
  memory?: number
  /** Where the system does not tell the processor's time, so many times as long on the clock; never longer in any case. */
  patience?: number
}

/** How often the time of a question is looked at, ms. */
const LOOK = 100

/**
 * A process of its own that answers one question after the other, none longer than it may take: then it is ended and
 * another begun, and only that question has no answer. It is started ahead and kept, so that no question waits for its
 * beginning; what counts is the processor's time of the question itself, so that a busy machine ends none.
 */
export function answerer({ entry, longest, tooLong, memory = 1_024, patience = 20 }: Settings) {
  let child: ChildProcess | null = null
  let ready = false
  let running: (Waiting & { id: number; from0: number | null; began: number }) | null = null
  let look: NodeJS.Timeout | undefined
  const queue: Waiting[] = []
  let ids = 0
  let deaths = 0

  function start() {
    const started = fork(entry(), {
      env: process.env,
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      execArgv: [`--max-old-space-size=${memory}`],
    })
    child = started
    ready = false
    started.on(
      'message',
      (message: { ready?: true; id?: number; answer?: unknown; problem?: string }) => {
        if (started !== child) return
        if (message.ready) {
          ready = true
          deaths = 0
          next()
        } else if (message.id === running?.id) settle(message)
      },
    )
    started.on('error', () => {})
    started.on('exit', () => {
      if (started !== child) return
      child = null
      if (running) settle({ problem: 'It was interrupted. Try again.' })
      // One that dies as it begins is not begun at once again and again.
      const again = setTimeout(() => child ?? start(), Math.min(5_000, 100 * 2 ** deaths++))
      again.unref()
    })
    started.unref()
    ;(started.channel as unknown as { unref?: () => void } | null)?.unref?.()
  }

  function next() {
    if (running || !child?.connected || !ready) return
    const waiting = queue.shift()
    if (!waiting) return
    const id = ++ids
    running = { ...waiting, id, from0: processorTime(child.pid!), began: performance.now() }
    child.ref()
    ;(child.channel as unknown as { ref?: () => void } | null)?.ref?.()
    look = setInterval(lookAtTime, LOOK)
    child.send({ id, question: waiting.question }, (error) => {
      if (error && running?.id === id) settle({ problem: 'It was interrupted. Try again.' })
    })
  }

  function lookAtTime() {
    if (!running || !child) return
    const spent = processorTime(child.pid!)
    const clock = performance.now() - running.began
    const used = spent !== null && running.from0 !== null ? spent - running.from0 : clock
    if (used <= longest && clock <= longest * patience) return
    const late = child
    child = null
    late.kill('SIGKILL')
    start()
    finish((one) => one.failed(new Unanswered('too long', tooLong)))
  }

  function settle(came: { answer?: unknown; problem?: string }) {
    finish((one) =>
      came.problem === undefined
        ? one.done(came.answer)
        : one.failed(new Unanswered('fault', came.problem)),
    )
  }

  function finish(tell: (one: Waiting) => void) {
    clearInterval(look)
    const one = running
    running = null
    child?.unref()
    ;(child?.channel as unknown as { unref?: () => void } | null)?.unref?.()
    if (one) tell(one)
    next()
  }

  return {
    /** Begins the process ahead of the first question. */
    start: () => void (child ?? start()),
    /**
     * Asks. `from` says who asks and what for: a newer question of the same replaces one that has not begun. Throws
     * {@link Unanswered}.
     */
    ask(question: unknown, from: string | null = null): Promise<unknown> {
      return new Promise((done, failed) => {
        const before = from === null ? -1 : queue.findIndex((waiting) => waiting.from === from)
        if (before >= 0)
          queue
            .splice(before, 1)[0]!
            .failed(new Unanswered('replaced', 'A newer question took its place.'))
        queue.push({ question, from, done, failed })
        if (child) next()
        else start()
      })
    },
    /** Ends the process; what was asked has no answer. */
    stop() {
      const last = child
      child = null
      last?.kill('SIGKILL')
      for (const one of [running, ...queue.splice(0)])
        one?.failed(new Unanswered('fault', 'It was ended.'))
      clearInterval(look)
      running = null
    },
  }
}

/** Tells the process that began this one; it may be gone, and then this one is about to end as well. */
export function say(what: object) {
  process.send?.(what, undefined, undefined, () => {})
}

/** What such a process does: answers what comes, and ends with the one that began it. */
export function answerQuestions(answer: (question: never) => unknown) {
  process.on('message', ({ id, question }: { id: number; question: never }) => {
    Promise.resolve()
      .then(() => answer(question))
      .then(
        (found) => say({ id, answer: found }),
        (error: unknown) =>
          say({ id, problem: error instanceof Error ? error.message : String(error) }),
      )
  })
  if (!process.connected) process.exit()
  process.on('disconnect', () => process.exit())
  say({ ready: true })
}
