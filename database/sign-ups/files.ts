import { one, q, run, type Database } from '../query'

export interface PromisedFile {
  name: string
  mime: string
  bytes: Buffer
}

/** Keeps a file that is promised; its id. */
export const addFile = (db: Database, file: PromisedFile, now: number): number =>
  run(db, q.insertInto('sign_up_files').values({ ...file, at: now })).id

export function fileById(db: Database, id: number): PromisedFile | undefined {
  const found = q.selectFrom('sign_up_files').select(['name', 'mime', 'bytes'])
  return one(db, found.where('id', '=', id))
}

/** What a file is called, and how much it weighs in bytes; null where there is none. */
export function aboutFile(db: Database, id: number | null) {
  if (id === null) return null
  const found = q
    .selectFrom('sign_up_files')
    .select(['id', 'name', (eb) => eb.fn<number>('length', ['bytes']).as('weight')])
  return one(db, found.where('id', '=', id)) ?? null
}
