import type Sqlite from 'better-sqlite3'

/** Tables whose rows others refer to by their id, or remember the last of. */
const tables = [
  'api_tokens',
  'comments',
  'data_outs',
  'data_schedules',
  'events',
  'evidence',
  'imports',
  'jobs',
  'letter_versions',
  'letterheads',
  'letters',
  'lists',
  'mailings',
  'notes',
  'orders',
  'own_templates',
  'people',
  'pictures',
  'products',
  'reports',
  'segments',
  'sequences',
  'stamps',
  'tags',
  'trial_mailboxes',
  'users',
  'wordings',
] as const

interface Made {
  name: string
  sql: string
}

/**
 * An id is never used again. Without `autoincrement` SQLite gives the id of the last row anew when that is deleted: undoing an
 * import deleted somebody who had been added by hand since. SQLite can't alter that, so each table is made anew: made beside
 * it, filled, and put in its place with its indexes and triggers (the way of sqlite.org/lang_altertable.html, 7). Foreign
 * keys have to be off meanwhile, or dropping a table would delete what refers to it.
 */
export const idsOnce = {
  withoutForeignKeys(sqlite: Sqlite.Database) {
    for (const table of tables) makeAnew(sqlite, table)
    sqlite
      .prepare(
        // No id that an import, a mailing or a report still names is given to somebody else.
        `update sqlite_sequence set seq = max(seq,
           (select coalesce(max(last_id), 0) from import_added),
           (select coalesce(max(person_id), 0) from import_changes),
           (select coalesce(max(person_id), 0) from recipients),
           (select coalesce(max(person_id), 0) from reports))
         where name = 'people'`,
      )
      .run()
  },
}

function makeAnew(sqlite: Sqlite.Database, table: string) {
  const { sql } = sqlite
    .prepare<[string], Made>(
      "select name, sql from sqlite_master where type = 'table' and name = ?",
    )
    .get(table)!
  const beside = `${table}_beside`
  const made = sql
    .replace(/^create table "?\w+"?/i, `create table "${beside}"`)
    .replace(/\bid integer primary key\b/i, 'id integer primary key autoincrement')
  const belongings = sqlite
    .prepare<[string], Made>(
      "select name, sql from sqlite_master where type in ('index', 'trigger') and tbl_name = ? and sql is not null order by rowid",
    )
    .all(table)
  sqlite.exec(made)
  sqlite.exec(`insert into "${beside}" select * from "${table}"`)
  sqlite.exec(`drop table "${table}"`)
  sqlite.exec(`alter table "${beside}" rename to "${table}"`)
  for (const one of belongings) sqlite.exec(one.sql)
  // An empty table has no counter yet, and a row is needed to begin one.
  sqlite
    .prepare(
      'insert into sqlite_sequence (name, seq) select ?, 0 where not exists (select 1 from sqlite_sequence where name = ?)',
    )
    .run(table, table)
}
