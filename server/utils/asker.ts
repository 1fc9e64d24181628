import { answerer, Unanswered } from '../../cases/apart/answerer'
import { processFile } from '../../cases/letters/compile-apart'
import type { Question, Questions } from '../asker/questions'

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
  const asker = askerOf[ask] ?? counting
  try {
    return (await asker.ask({ ask, of } as Question, from)) as ReturnType<Questions[K]>
  } catch (error) {
    if (!(error instanceof Unanswered)) throw error
    throw createError({
      statusCode: error.why === 'replaced' ? 409 : 503,
      message: error.message,
    })
  }
}
