import fc from 'fast-check'
import { beforeEach, expect, test } from 'vitest'
import { addField, mergeField } from './fields'
import { dropFieldOrder, hasFieldOrder, makeFieldOrder, wantsFieldOrder } from './field-order'
import { addJob } from '../jobs'
import { madeUpAccount, somebody } from '../made-up'
import { peoplePage } from './people'
import { all, raw, type Database } from '../query'
import { sql } from 'kysely'

let db: Database
beforeEach(() => {
  ;({ db } = madeUpAccount())
  addField(db, { key: 'town', name: 'Town', kind: 'text' })
})
const towns = (descending: boolean, limit = 100, offset = 0) =>
  peoplePage(db, {}, limit, offset, { by: { field: 'town' }, descending }).map(
    ({ id, fields }) => [(JSON.parse(fields) as { town?: string }).town ?? null, id] as const,
  )

test('people without a value come last, whichever way, and ids decide among equals', () => {
  for (const [i, town] of ['Orrin', null, 'Ardle', 'Orrin', null].entries())
    somebody(db, `p${i}`, { values: town === null ? {} : { town } })
  expect(towns(false)).toEqual([
    ['Ardle', 3],
    ['Orrin', 1],
    ['Orrin', 4],
    [null, 2],
    [null, 5],
  ])
  expect(towns(true)).toEqual([
    ['Orrin', 4],
    ['Orrin', 1],
    ['Ardle', 3],
    [null, 5],
    [null, 2],
  ])
})

test('the index changes nothing but the time, on every page', () => {
  fc.assert(
    fc.property(
      fc.array(fc.option(fc.constantFrom('Orrin', 'Ardle', 'Å', '', 'orrin')), { maxLength: 25 }),
      fc.boolean(),
      fc.integer({ min: 1, max: 8 }),
      (values, descending, page) => {
        ;({ db } = madeUpAccount())
        addField(db, { key: 'town', name: 'Town', kind: 'text' })
        values.forEach((town, i) => somebody(db, `p${i}`, { values: town ? { town } : {} }))
        const whole = towns(descending)
        makeFieldOrder(db, 'town')
        const pages = []
        for (let from = 0; from < values.length; from += page)
          pages.push(...towns(descending, page, from))
        expect(pages).toEqual(whole)
      },
    ),
    { numRuns: 40 },
  )
})

test('the first page is read from the index, not by sorting everybody', () => {
  makeFieldOrder(db, 'town')
  makeFieldOrder(db, 'town')
  const plan = all(
    db,
    raw(
      sql<{ detail: string }>`explain query plan select id from people
        where json_extract(fields, '$.town') is not null order by json_extract(fields, '$.town') desc, people.id desc limit 9`,
    ),
  ).map(({ detail }) => detail)
  expect(plan).toEqual(['SCAN people USING COVERING INDEX people_by_field_town'])
})

test('a small account needs none, and one that is being made is not asked for again', () => {
  somebody(db, 'tove', { values: { town: 'Orrin' } })
  expect(wantsFieldOrder(db, 'town')).toBe(false)
  db.sqlite.exec(
    `with recursive n(i) as (select 1 union all select i + 1 from n where i < 30000)
     insert into people (address, normal, domain, fields, joined_at, changed_at)
     select i || '@x.example', i || '@x.example', 'x.example', '{}', 0, 0 from n`,
  )
  expect(wantsFieldOrder(db, 'town')).toBe(true)
  addJob(db, 'order-field', { key: 'town' }, 0)
  expect(wantsFieldOrder(db, 'town')).toBe(false)
})

test('it goes with its field, and a key that is none never reaches the database', () => {
  addField(db, { key: 'place', name: 'Place', kind: 'text' })
  makeFieldOrder(db, 'town')
  for (const _ of mergeField(db, 'town', 'place', 0));
  expect(hasFieldOrder(db, 'town')).toBe(false)
  dropFieldOrder(db, 'town')
  expect(() => makeFieldOrder(db, "town') ; drop table people; --")).toThrow('is no key')
})
