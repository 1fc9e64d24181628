import { readLetterhead, withFrameStamps, type Letter, type Letterhead } from '../../core/letters'
import { readAccount } from '../account'
import { letterOf } from './letter'
import { all, one, q, run, type Database } from '../query'
import { stampContents } from './stamps'
import { markOf } from '../versions'
import type { NamedLetterhead } from '../../core/letters'

/** The letterheads besides the account's own, by name. */
export function letterheads(db: Database): NamedLetterhead[] {
  return all(
    db,
    q
      .selectFrom('letterheads')
      .select(['id', 'name', 'look'])
      .where('deleted_at', 'is', null)
      .orderBy('name'),
  ).map(({ look, ...row }) => ({
    ...row,
    look: readLetterhead(JSON.parse(look)),
    version: markOf([row.name, look]),
  }))
}

/** Which version the account's own is: whoever changes it says which one they saw. */
export function ownLetterheadVersion(db: Database): string {
  return markOf(readAccount(db)!.letterhead)
}

export function addLetterhead(db: Database, name: string, look: Letterhead, now: number): number {
  const letterhead = { name, look: JSON.stringify(look), created_at: now }
  return run(db, q.insertInto('letterheads').values(letterhead)).id
}

/** Changes a letterhead; the letters in it that have not gone out follow. */
export function changeLetterhead(
  db: Database,
  id: number,
  change: { name?: string; look?: Letterhead },
): boolean {
  const set = {
    ...(change.name === undefined ? {} : { name: change.name }),
    ...(change.look === undefined ? {} : { look: JSON.stringify(change.look) }),
  }
  if (!Object.keys(set).length) return true
  return run(db, q.updateTable('letterheads').set(set).where('id', '=', id)).changes === 1
}

/** Takes a letterhead away, or gives it back; meanwhile its letters are in the account's own. */
export function setLetterheadDeleted(db: Database, id: number, at: number | null): boolean {
  const change = q.updateTable('letterheads').set({ deleted_at: at }).where('id', '=', id)
  return run(db, change).changes === 1
}

/** Puts a letter in a letterhead; null: the account's own. */
export function chooseLetterhead(db: Database, letterId: number, id: number | null) {
  run(db, q.updateTable('letters').set({ letterhead_id: id }).where('id', '=', letterId))
}

/** The number of the letterhead that a letter is in; null: the account's own. */
export function letterheadIdOf(db: Database, letterId: number): number | null {
  return (
    one(
      db,
      q
        .selectFrom('letters')
        .innerJoin('letterheads', 'letterheads.id', 'letters.letterhead_id')
        .select('letterhead_id')
        .where('letters.id', '=', letterId)
        .where('letterheads.deleted_at', 'is', null),
    )?.letterhead_id ?? null
  )
}

/** How a letter looks. */
export function letterheadOf(db: Database, letterId: number): Letterhead {
  const id = letterheadIdOf(db, letterId)
  const own = id === null ? undefined : letterheads(db).find((one) => one.id === id)
  return own?.look ?? readAccount(db)!.letterhead
}

/** A letter as its readers get it: with what its letterhead puts above and below every letter. */
export function wholeLetterOf(db: Database, letterId: number): Letter {
  const { version: _version, ...letter } = letterOf(db, letterId)
  const { head, foot } = letterheadOf(db, letterId)
  if (head === null && foot === null) return letter
  return {
    ...letter,
    document: withFrameStamps(letter.document, { head, foot }, stampContents(db)),
  }
}
