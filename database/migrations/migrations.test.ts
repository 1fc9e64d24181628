import Sqlite from 'better-sqlite3'
import { expect, test } from 'vitest'
import { migrate, migrations } from '.'

const shapeOf = (sqlite: Sqlite.Database) =>
  sqlite
    .prepare(
      "select type, name, sql from sqlite_master where name not like 'sqlite_%' order by type, name",
    )
    .all()

test('from empty and from each earlier version one comes to the same shape', () => {
  const whole = new Sqlite(':memory:')
  migrate(whole)
  for (let version = 0; version < migrations.length; version++) {
    const sqlite = new Sqlite(':memory:')
    migrate(sqlite, version)
    expect(sqlite.pragma('user_version', { simple: true })).toBe(version)
    migrate(sqlite)
    migrate(sqlite)
    expect(shapeOf(sqlite)).toEqual(shapeOf(whole))
  }
})

test('a step that fails leaves nothing half done', () => {
  const sqlite = new Sqlite(':memory:')
  sqlite.exec('create table evidence (id integer)')
  expect(() => migrate(sqlite)).toThrow(/already exists/)
  expect(sqlite.pragma('user_version', { simple: true })).toBe(0)
  expect(shapeOf(sqlite)).toHaveLength(1)
})

test('a database of a newer version is refused with a sentence', () => {
  const sqlite = new Sqlite(':memory:')
  sqlite.pragma(`user_version = ${migrations.length + 1}`)
  expect(() => migrate(sqlite)).toThrow(/newer version of Satchel/)
})
