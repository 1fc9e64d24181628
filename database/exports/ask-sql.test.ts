import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { Field } from '../../core/people'
import { addApiToken } from '../imports'
import { askSql, MOST_ROWS, peopleOfSql, SqlFault } from './ask-sql'
import { closeDatabase, openDatabase } from '../connect'
import { addList, tagPeople, tagNamed } from '../people'
import { fillAccount, mailingOnItsWay, somebody } from '../made-up'
import { q, run, type Database } from '../query'
import { sqlViews } from './sql-views'
import { addUser } from '../account'

const folder = mkdtempSync(join(tmpdir(), 'satchel-sql-'))
const fields: Field[] = [
  { key: 'first_name', name: 'First name', kind: 'text' },
  { key: 'town', name: 'Town', kind: 'text' },
  { key: 'joined', name: 'Joined the club', kind: 'date' },
]
let db: Database
beforeAll(() => {
  db = openDatabase(folder)
  fillAccount(db)
  addUser(db, { name: 'Pia', address: 'pia@k.example', passwordHash: 'HASH', role: 'owner' }, 0)
  addApiToken(db, 'Shop', 0)
  const list = addList(db, { name: 'Wind notes', description: '' }, 0)
  const tove = somebody(db, 'tove', {
    list,
    values: { first_name: 'Tove', town: 'Orrin', joined: '2020-01-02' },
  })
  somebody(db, 'ivo', { list, values: { town: 'Stannow' } })
  tagPeople(db, [tove], tagNamed(db, 'club'), true)
  mailingOnItsWay(db, list, { now: Date.UTC(2026, 10, 23, 9, 40) })
  run(db, q.insertInto('orders').values({ number: 'G-1', person_id: tove, at: 0, money: 9_400 }))
})
afterAll(() => closeDatabase(db))
const asked = (query: string) => askSql(folder, fields, query)

test('every view and every column of it can be asked', () => {
  for (const { name, columns } of sqlViews(fields)) {
    const answer = asked(`select * from ${name} limit 3`)
    expect(answer.columns, name).toEqual(Object.keys(columns))
  }
})

test('people with their fields; a field whose name is taken has another', () => {
  expect(
    asked(
      'select first_name, town, field_joined, order_count, spent_minor from people order by id',
    ),
  ).toMatchObject({
    columns: ['first_name', 'town', 'field_joined', 'order_count', 'spent_minor'],
    rows: [
      ['Tove', 'Orrin', '2020-01-02', 1, 9_400],
      [null, 'Stannow', null, 0, 0],
    ],
    more: false,
    person: -1,
  })
})

test('views are joined, grouped and counted', () => {
  const { rows } = asked(`
    with members as (select person_id from person_tags where tag = 'club')
    select p.town, count(*) as n, m.started
    from recipients r
    join people p on p.id = r.person_id
    join mailings m on m.id = r.mailing_id
    where p.id in (select person_id from members)
    group by 1;`)
  expect(rows).toEqual([['Orrin', 1, '2026-11-23 09:40:00']])
})

test('which column says who it is about', () => {
  expect(asked('select address, id from people').person).toBe(1)
  expect(asked('select p.id as who, p.town from people p').person).toBe(0)
  expect(asked('select state, person_id from subscriptions').person).toBe(1)
  expect(asked('select max(person_id) as person_id from orders').person).toBe(0)
  expect(asked('select id from mailings').person).toBe(-1)
})

test('the people of a query, each once', () => {
  expect(
    peopleOfSql(folder, fields, 'select id from people union all select id from people'),
  ).toEqual([1, 2])
  expect(() => peopleOfSql(folder, fields, 'select id from mailings')).toThrow(/not about people/)
})

test('more rows than are shown are said to be more', () => {
  const answer = asked(
    'with recursive n(i) as (select 1 union all select i + 1 from n where i < 5000) select i from n',
  )
  expect(answer.rows).toHaveLength(MOST_ROWS)
  expect(answer.more).toBe(true)
  expect(asked("select printf('%.*c', 9000, 'x') as long, x'0102' as bytes").rows).toEqual([
    [`${'x'.repeat(2_000)}…`, '(2 bytes)'],
  ])
})

test.each([
  'select * from users',
  'select * from account',
  'select * from api_tokens',
  'select * from api_answers',
  'select * from clock',
  'select * from letters',
  'select * from wordings',
  'select * from jobs',
  'select * from erased',
])('%s finds nothing there', (query) => {
  expect(asked(query).rows).toEqual([])
})

test.each([
  ['select password_hash from users', /No such column/],
  ['select * from main.users', /No such table/],
  ['select * from data.users', /No such table/],
  ['select * from sqlite_schema', /can’t be asked here/],
  ['select * from temp.sqlite_temp_master', /can’t be asked here/],
  ['select * from "sqlite_master"', /can’t be asked here/],
  ['select * from pragma_database_list', /can’t be asked here/],
  ['select * from dbstat', /can’t be asked here/],
  ['pragma query_only = off', /begins with SELECT/],
  ['delete from people', /begins with SELECT/],
  ["attach 'x' as y", /begins with SELECT/],
  ['with x as (select 1) delete from people', /./],
  ['with x as (select 1) insert into people(id) select * from x', /./],
  ['select 1; select 2', /one statement/],
  ["select load_extension('x')", /not authorized|No such function/i],
  ["select writefile('x', 'y')", /No such function/],
  ['select nowhere from people', /No such column: nowhere\./],
  ['select', /Incomplete input/],
  ['', /begins with SELECT/],
])('%s is refused in words', (query, message) => {
  expect(() => asked(query)).toThrow(SqlFault)
  expect(() => asked(query)).toThrow(message)
})

test('nothing that is asked changes anything, and no message tells how the data is reached', () => {
  const before = db.sqlite.prepare('select count(*), max(id) from people').raw().get()
  for (const query of [
    'with x as (select 1) update people set id = 9',
    'with x as (select 1) delete from subscriptions',
    'select p.nothing from people p join recipients r on r.nothing = p.id',
    'select * from people where rowid = nowhere.id',
  ]) {
    let message = ''
    try {
      asked(query)
    } catch (error) {
      message = (error as Error).message
    }
    expect(message).not.toBe('')
    expect(message).not.toMatch(/s[0-9a-f]{32}/)
  }
  expect(db.sqlite.prepare('select count(*), max(id) from people').raw().get()).toEqual(before)
})
