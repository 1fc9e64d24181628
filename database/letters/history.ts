import type { Letter, LetterDocument } from '../../core/letters'
import { MINUTE } from '../../core/time'
import { all, one, q, run, transact, type Database } from '../query'

/** Somebody who writes on without a longer pause writes one version. */
const SITTING = 10 * MINUTE
/** So many versions of a letter are kept; the oldest go first. */
const KEPT = 200

/** Who wrote. */
export interface Author {
  id: number
  name: string
}

/** A version as the history lists it. */
export interface LetterVersion {
  id: number
  beganAt: number
  at: number
  byName: string
  version: number
  restoredFrom: number | null
}

/** Saves a letter over the version its author saw. The new version, or null where somebody was faster. */
export function saveLetter(
  db: Database,
  letterId: number,
  letter: Letter,
  sawVersion: number,
  by: Author,
  now: number,
  restoredFrom: number | null = null,
): number | null {
  return transact(db, () => {
    const content = {
      subject: letter.subject,
      preview_text: letter.previewText,
      document: JSON.stringify(letter.document),
    }
    keepFirst(db, letterId, by)
    const { changes } = run(
      db,
      q
        .updateTable('letters')
        .set({ ...content, version: sawVersion + 1, updated_at: now })
        .where('id', '=', letterId)
        .where('version', '=', sawVersion),
    )
    if (!changes) return null
    const last = latest(db, letterId)
    const goesOn =
      restoredFrom === null &&
      last !== undefined &&
      last.by_id === by.id &&
      last.restored_from === null &&
      last.version > 1 &&
      now - last.at < SITTING
    const version = { ...content, at: now, version: sawVersion + 1 }
    if (goesOn) run(db, q.updateTable('letter_versions').set(version).where('id', '=', last.id))
    else
      run(
        db,
        q.insertInto('letter_versions').values({
          ...version,
          letter_id: letterId,
          began_at: now,
          by_id: by.id,
          by_name: by.name,
          restored_from: restoredFrom,
        }),
      )
    forgetOldest(db, letterId)
    return sawVersion + 1
  })
}

/** The versions of a letter, the latest first. */
export function letterVersions(db: Database, letterId: number): LetterVersion[] {
  return all(
    db,
    q
      .selectFrom('letter_versions')
      .select(['id', 'began_at', 'at', 'by_name', 'version', 'restored_from'])
      .where('letter_id', '=', letterId)
      .orderBy('id', 'desc'),
  ).map((row) => ({
    id: row.id,
    beganAt: row.began_at,
    at: row.at,
    byName: row.by_name,
    version: row.version,
    restoredFrom: row.restored_from,
  }))
}

/** The letter as it was in one version; undefined where that is none of its own. */
export function letterVersion(db: Database, letterId: number, id: number): Letter | undefined {
  const row = one(
    db,
    q
      .selectFrom('letter_versions')
      .select(['subject', 'preview_text', 'document'])
      .where('letter_id', '=', letterId)
      .where('id', '=', id),
  )
  return (
    row && {
      subject: row.subject,
      previewText: row.preview_text,
      document: JSON.parse(row.document) as LetterDocument,
    }
  )
}

/** Before the first change the letter is kept as it was begun, so that one can go back there, too. */
function keepFirst(db: Database, letterId: number, by: Author) {
  if (latest(db, letterId)) return
  const letter = one(db, q.selectFrom('letters').selectAll().where('id', '=', letterId))
  if (!letter) return
  const { subject, preview_text, document, version, updated_at: at } = letter
  run(
    db,
    q.insertInto('letter_versions').values({
      ...{ subject, preview_text, document, version, at },
      letter_id: letterId,
      began_at: at,
      by_id: by.id,
      by_name: by.name,
      restored_from: null,
    }),
  )
}

function latest(db: Database, letterId: number) {
  return one(
    db,
    q
      .selectFrom('letter_versions')
      .select(['id', 'by_id', 'at', 'version', 'restored_from'])
      .where('letter_id', '=', letterId)
      .orderBy('id', 'desc')
      .limit(1),
  )
}

function forgetOldest(db: Database, letterId: number) {
  const kept = q
    .selectFrom('letter_versions')
    .select('id')
    .where('letter_id', '=', letterId)
    .orderBy('id', 'desc')
    .limit(KEPT)
  run(
    db,
    q.deleteFrom('letter_versions').where('letter_id', '=', letterId).where('id', 'not in', kept),
  )
}
