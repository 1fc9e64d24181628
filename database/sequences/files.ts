import {
  sequenceFile,
  withMailings,
  type NamedLetter,
  type ReadFile,
  type SequenceMap,
} from '../../core/sequences'
import { letterOf, type Author } from '../letters'
import { mailingById } from '../mailings'
import { all, one, q, run, transact, type Database } from '../query'
import { readCatalog } from '../segments'
import { addMailOf, addSequence, changeSequence, sequenceById, type Sequence } from './sequences'

/** A sequence as it is drawn, as a file that can be read in any account. */
export function takeOutSequence(db: Database, { name, list_id, map }: Sequence): object {
  const letters = new Map<number, NamedLetter>()
  withMailings(map, (id) => {
    const mailing = mailingById(db, id)
    if (mailing) {
      const { subject, previewText, document } = letterOf(db, mailing.letter_id)
      letters.set(id, { name: mailing.name, subject, previewText, document })
    }
    return id
  })
  return sequenceFile({ name, listId: list_id, map, letters }, readCatalog(db))
}

/** Makes a draft out of a file that was read; its id. Without a list of its own it writes on behalf of `listId`. */
export function bringInSequence(
  db: Database,
  file: ReadFile,
  listId: number | null,
  now: number,
): number {
  return transact(db, () => {
    const id = addSequence(db, file.name, file.listId ?? listId, now)
    const made = sequenceById(db, id)!
    const map = mapOfFile(db, made, file, now)
    changeSequence(db, made, { name: made.name, listId: made.list_id, map }, made.revision)
    return id
  })
}

/** The map of a file, with a mailing of a sequence for each of its letters. */
export function mapOfFile(
  db: Database,
  sequence: Sequence,
  { map, letters }: ReadFile,
  now: number,
): SequenceMap {
  return transact(db, () =>
    withMailings(map, (place) => {
      const { name, ...letter } = letters[place - 1]!
      return addMailOf(db, sequence, name, now, letter)
    }),
  )
}

/** Keeps a sequence as a template of the account; its id. */
export function keepSequence(
  db: Database,
  sequence: Sequence,
  { name, about }: { name: string; about: string },
  by: Author,
  now: number,
): number {
  const file = JSON.stringify(takeOutSequence(db, sequence))
  const values = { name, about, file, created_at: now, by_name: by.name }
  return run(db, q.insertInto('kept_sequences').values(values)).id
}

/** The account's own templates of sequences, the latest first. */
export const keptSequences = (db: Database) =>
  all(
    db,
    q
      .selectFrom('kept_sequences')
      .select(['id', 'name', 'about', 'by_name as byName', 'created_at as at'])
      .where('deleted_at', 'is', null)
      .orderBy('id', 'desc'),
  )

/** The file of a kept one; undefined where it is not there, or taken away. */
export const keptFile = (db: Database, id: number): string | undefined =>
  one(
    db,
    q
      .selectFrom('kept_sequences')
      .select('file')
      .where('id', '=', id)
      .where('deleted_at', 'is', null),
  )?.file

/** Takes a kept one away, or (null) gives it back. Sequences begun from it stay as they are. */
export function setKeptDeleted(db: Database, id: number, at: number | null): boolean {
  const change = q.updateTable('kept_sequences').set({ deleted_at: at }).where('id', '=', id)
  return run(db, change).changes === 1
}
