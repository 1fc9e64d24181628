import { sql, type Insertable } from 'kysely'
import { all, one, q, run, type Database } from '../query'
import type { Schema } from '../schema'
import type { LibraryPicture } from '../../core/letters'

/** Keeps a picture once, by the hash of its bytes; its public path. One that was taken away is offered again. */
export function addPicture(
  db: Database,
  picture: Insertable<Schema['pictures']>,
): { id: number; path: string } {
  const found = one(db, q.selectFrom('pictures').select('id').where('hash', '=', picture.hash))
  if (found) run(db, q.updateTable('pictures').set({ removed_at: null }).where('id', '=', found.id))
  const id = found?.id ?? run(db, q.insertInto('pictures').values(picture)).id
  return { id, path: `/p/${picture.hash}` }
}

/** How high each picture is for its width, by its public path; `only`: of these alone. */
export function pictureShapes(db: Database, only?: readonly string[]): Record<string, number> {
  if (only?.length === 0) return {}
  const some = q.selectFrom('pictures').select(['hash', 'width', 'height'])
  const hashes = only?.map((path) => path.replace('/p/', ''))
  const rows = all(db, hashes ? some.where('hash', 'in', hashes) : some)
  return Object.fromEntries(rows.map(({ hash, width, height }) => [`/p/${hash}`, height / width]))
}

export function pictureByHash(db: Database, hash: string) {
  return one(
    db,
    q.selectFrom('pictures').select(['mime', 'bytes', 'width', 'name']).where('hash', '=', hash),
  )
}

export function pictureById(db: Database, id: number) {
  return one(db, q.selectFrom('pictures').selectAll().where('id', '=', id))
}

/** The pictures that are offered, the latest first, with the mailings whose letters show them. */
export function libraryPictures(db: Database): LibraryPicture[] {
  const uses = pictureUses(db)
  const rows = all(
    db,
    q
      .selectFrom('pictures')
      .select(['id', 'hash', 'name', 'folder', 'alt', 'mime', 'width', 'height'])
      .select(['created_at', 'made_from', sql<number>`length(bytes)`.as('weight')])
      .where('removed_at', 'is', null)
      .orderBy('id', 'desc'),
  )
  return rows.map(({ hash, created_at, made_from, ...row }) => ({
    ...row,
    path: `/p/${hash}`,
    at: created_at,
    madeFrom: made_from,
    usedIn: uses.get(hash) ?? [],
  }))
}

/** Changes what a picture is called, where it lies and how it reads in words. Whether there is one. */
export function updatePicture(
  db: Database,
  id: number,
  change: { name?: string; folder?: string; alt?: string },
): boolean {
  if (!Object.keys(change).length) return pictureById(db, id) !== undefined
  return run(db, q.updateTable('pictures').set(change).where('id', '=', id)).changes === 1
}

/** Takes a picture out of the library, or gives it back. Letters that show it go on doing so. */
export function setPictureRemoved(db: Database, id: number, at: number | null): boolean {
  const change = q.updateTable('pictures').set({ removed_at: at }).where('id', '=', id)
  return run(db, change).changes === 1
}

/** A picture made to a width before; undefined where it was not yet. */
export function sizedPicture(db: Database, hash: string, width: number) {
  return one(
    db,
    q
      .selectFrom('picture_sizes')
      .select(['mime', 'bytes'])
      .where('hash', '=', hash)
      .where('width', '=', width),
  )
}

export function keepSize(db: Database, size: Insertable<Schema['picture_sizes']>) {
  run(
    db,
    q
      .insertInto('picture_sizes')
      .values(size)
      .onConflict((on) => on.doNothing()),
  )
}

/** By the hash of a picture: the mailings whose letters show it, the latest first. */
function pictureUses(db: Database): Map<string, { id: number; name: string }[]> {
  const uses = new Map<string, { id: number; name: string }[]>()
  const letters = all(
    db,
    q
      .selectFrom('mailings')
      .innerJoin('letters', 'letters.id', 'mailings.letter_id')
      .select(['mailings.id', 'name', 'document'])
      .where('document', 'like', '%"/p/%')
      .orderBy('mailings.id', 'desc'),
  )
  for (const { id, name, document } of letters)
    for (const hash of new Set(document.match(/(?<="\/p\/)[0-9a-f]{32}/g)))
      uses.set(hash, [...(uses.get(hash) ?? []), { id, name }])
  return uses
}
