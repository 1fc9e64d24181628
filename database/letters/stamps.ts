import { readRow, stampContent, stampsIn, withStamps, type StampContent } from '../../core/letters'
import { saveLetter, type Author } from './history'
import { letterOf } from './letter'
import { all, q, run, transact, type Database } from '../query'
import type { Stamp, StampUse } from '../../core/letters'

/** The stamps that are offered, by name. */
export function readStamps(db: Database): Stamp[] {
  const uses = stampUses(db)
  const rows = all(
    db,
    q.selectFrom('stamps').selectAll().where('deleted_at', 'is', null).orderBy('name'),
  )
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    content: JSON.parse(row.content) as StampContent,
    version: row.version,
    updatedAt: row.updated_at,
    usedIn: uses.get(row.id) ?? [],
  }))
}

export function stampById(db: Database, id: number): Stamp | undefined {
  return readStamps(db).find((stamp) => stamp.id === id)
}

/** What the stamps hold that are there, by number. */
export function stampContents(db: Database): Map<number, StampContent> {
  const rows = all(
    db,
    q.selectFrom('stamps').select(['id', 'content']).where('deleted_at', 'is', null),
  )
  return new Map(rows.map(({ id, content }) => [id, JSON.parse(content) as StampContent]))
}

export function addStamp(db: Database, name: string, content: StampContent, now: number): number {
  const stamp = { name, content: JSON.stringify(content), created_at: now, updated_at: now }
  return run(db, q.insertInto('stamps').values(stamp)).id
}

export function renameStamp(db: Database, id: number, name: string): boolean {
  return run(db, q.updateTable('stamps').set({ name }).where('id', '=', id)).changes === 1
}

/**
 * Changes what a stamp holds; every letter that is linked to it and has not gone out follows, as a version of
 * its history. The mailings that followed, or null where somebody else changed the stamp after `sawVersion`.
 */
export function changeStamp(
  db: Database,
  id: number,
  content: StampContent,
  sawVersion: number,
  by: Author,
  now: number,
): { id: number; name: string }[] | null {
  return transact(db, () => {
    const { changes } = run(
      db,
      q
        .updateTable('stamps')
        .set({ content: JSON.stringify(content), version: sawVersion + 1, updated_at: now })
        .where('id', '=', id)
        .where('version', '=', sawVersion)
        .where('deleted_at', 'is', null),
    )
    return changes ? letFollow(db, id, content, by, now) : null
  })
}

/** Takes a stamp away, or gives it back. Letters keep what stands in them. */
export function setStampDeleted(db: Database, id: number, at: number | null): boolean {
  return run(db, q.updateTable('stamps').set({ deleted_at: at }).where('id', '=', id)).changes === 1
}

/** What came from outside as what a stamp holds; null where it is no row. */
export function readStampContent(json: unknown): StampContent | null {
  const row = readRow(json)
  return row && stampContent(row)
}

function letFollow(db: Database, id: number, content: StampContent, by: Author, now: number) {
  const followed: { id: number; name: string }[] = []
  for (const mailing of lettersWithStamps(db)) {
    if (mailing.started_at !== null) continue
    const { version, ...letter } = letterOf(db, mailing.letter_id)
    const document = withStamps(letter.document, new Map([[id, content]]))
    if (document === letter.document) continue
    saveLetter(db, mailing.letter_id, { ...letter, document }, version, by, now)
    followed.push({ id: mailing.id, name: mailing.name })
  }
  return followed
}

function stampUses(db: Database): Map<number, StampUse[]> {
  const uses = new Map<number, StampUse[]>()
  for (const { id, name, started_at, document } of lettersWithStamps(db))
    for (const stamp of stampsIn(JSON.parse(document))) {
      const use = { id, name, follows: started_at === null }
      uses.set(stamp, [...(uses.get(stamp) ?? []), use])
    }
  return uses
}

function lettersWithStamps(db: Database) {
  return all(
    db,
    q
      .selectFrom('mailings')
      .innerJoin('letters', 'letters.id', 'mailings.letter_id')
      .select(['mailings.id', 'name', 'started_at', 'letter_id', 'document'])
      .where('document', 'like', '%"stamp":%')
      .orderBy('mailings.id', 'desc'),
  )
}
