import { one, q, run, type Database } from './query'

/** The id under which a wording of consent is kept; each text is kept once. */
export function wordingId(db: Database, text: string): number {
  const found = one(db, q.selectFrom('wordings').select('id').where('text', '=', text))
  return found?.id ?? run(db, q.insertInto('wordings').values({ text })).id
}
