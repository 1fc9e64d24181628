import type { Insertable } from 'kysely'
import { one, q, run, type Database } from './query'
import type { Schema } from './schema'

/** Keeps a picture once, by the hash of its bytes; its public path. */
export function addPicture(
  db: Database,
  picture: Insertable<Schema['pictures']>,
): { id: number; path: string } {
  const found = one(db, q.selectFrom('pictures').select('id').where('hash', '=', picture.hash))
  const id = found?.id ?? run(db, q.insertInto('pictures').values(picture)).id
  return { id, path: `/p/${picture.hash}` }
}

export function pictureByHash(db: Database, hash: string) {
  return one(db, q.selectFrom('pictures').select(['mime', 'bytes']).where('hash', '=', hash))
}
