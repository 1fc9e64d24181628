import { sql } from 'kysely'
import { one, q, type Database } from '../query'

/** How many letters are looked at for whether they use what a form asks. */
export const LETTERS_LOOKED_AT = 12

/**
 * By field: how many of the last letters that were sent fill it in, or show a part by it. A letter names a field in a
 * fill-in (`person.town`) or in a condition (its key in quotation marks).
 */
export function usedByLetters(
  db: Database,
  keys: readonly string[],
): { usedBy: Map<string, number>; looked: number } {
  const last = q
    .selectFrom('mailings')
    .innerJoin('letters', 'letters.id', 'mailings.letter_id')
    .select(sql<string>`letters.document || letters.subject || letters.preview_text`.as('text'))
    .where('mailings.started_at', 'is not', null)
    .where('mailings.sequence_id', 'is', null)
    .orderBy('mailings.started_at', 'desc')
    .limit(LETTERS_LOOKED_AT)
  const using = (key: string) =>
    one(
      db,
      q
        .selectFrom(last.as('last'))
        .select((eb) => eb.fn.countAll<number>().as('n'))
        .where(sql<boolean>`instr(text, ${`person.${key}`}) > 0 or instr(text, ${`"${key}"`}) > 0`),
    )!.n
  const looked = one(
    db,
    q.selectFrom(last.as('last')).select((eb) => eb.fn.countAll<number>().as('n')),
  )!.n
  return { usedBy: new Map(keys.map((key) => [key, using(key)])), looked }
}
