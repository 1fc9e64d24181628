import { answerer, Unanswered, processFile } from '../../cases/apart'
import type { Questions } from '../asker/questions'

const entry = () => processFile('asker')

/** Questions about people. */
const counting = answerer({
  entry,
  longest: 20_000,
  tooLong: 'This takes too long to count. Leave out a rule, or ask for a shorter time.',
})
/** Queries of users' own have a process of their own, so that none of them holds up the counting. */
const querying = answerer({
  entry,
  longest: 10_000,
  tooLong: 'This query takes longer than 10 seconds. Ask for less, or limit it in time.',
})
/** What may be known a moment later has a process of its own, too, so that counts never wait for it. */
const reckoning = answerer({
  entry,
  longest: 30_000,
  tooLong: 'This takes too long to calculate.',
})
/** Pages of lists and their sums: each is short, and somebody waits for it. */
const listing = answerer({
  entry,
  longest: 15_000,
  tooLong: 'This takes too long to list. Search for more letters, or filter it.',
})

const askerOf: Partial<Record<keyof Questions, typeof counting>> = {
  sql: querying,
  sqlPeople: querying,
  pastSizes: reckoning,
  renditions: reckoning,
  proof: reckoning,
  load: reckoning,
  sequenceResults: reckoning,
}

/** Begins them ahead: no page waits for a process to begin. */
export function startAskers() {
  for (const asker of [counting, querying, reckoning, listing]) asker.start()
}

/**
 * Asks the asker process. `from` says who asks and what for: a newer question of the same replaces one
 * that has not begun. Throws 409 where that happened, and 503 where it has no answer.
 */
export async function askLong<K extends keyof Questions>(
  ask: K,
  of: Parameters<Questions[K]>[1],
  from: string | null = null,
): Promise<ReturnType<Questions[K]>> {
  return (
    process.env.SATCHEL_READER ? await askAbove(ask, of, from) : await askHere(ask, of, from)
  ) as ReturnType<Questions[K]>
}

/** Asks the askers that belong to this process. */
export async function askHere(
  ask: keyof Questions,
  of: unknown,
  from: string | null,
): Promise<unknown> {
  const asker = askerOf[ask] ?? counting
  try {
    return await asker.ask({ ask, of }, from)
  } catch (error) {
    if (!(error instanceof Unanswered)) throw error
    throw createError({
      statusCode: error.why === 'replaced' ? 409 : 503,
      message: error.message,
    })
  }
}

const asked = new Map<
  number,
  { done: (answer: unknown) => void; failed: (error: unknown) => void }
>()
let ids = 0

/** A reader has no askers of its own: it asks those of the process that began it. */
function askAbove(ask: string, of: unknown, from: string | null): Promise<unknown> {
  if (ids === 0) process.on('message', hearAnswer)
  const id = ++ids
  return new Promise((done, failed) => {
    asked.set(id, { done, failed })
    process.send!({ id, asks: { ask, of, from } })
  })
}

function hearAnswer(told: { id: number; answer?: unknown; status?: number; problem?: string }) {
  const one = asked.get(told.id)
  asked.delete(told.id)
  if (told.problem === undefined) one?.done(told.answer)
  else one?.failed(createError({ statusCode: told.status ?? 503, message: told.problem }))
}
