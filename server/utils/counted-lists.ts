import type { Database } from '~~/database'
import { listsWithCounts, readLists } from '~~/database/people'

/** The lists as they are, with how many are subscribed to each as of now or, with very many people, of a moment ago. */
export const countedLists = (db: Database) =>
  countedSeldom(`lists ${JSON.stringify(readLists(db))}`, () => listsWithCounts(db))
