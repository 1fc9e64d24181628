/** Satchel's one SQLite file: connection, schema, and a file of queries for each subject. */
export { openDatabase, openMemory, closeDatabase } from './connect'
export { all, raw, one, run, transact, prepared, q } from './query'
export type { Database } from './query'
export type { Schema, MailingState } from './schema'
