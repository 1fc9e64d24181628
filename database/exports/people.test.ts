import { beforeEach, expect, test } from 'vitest'
import { exportPeople } from './people'
import { idsOfPeople, tagNamed, suppressPeople, tagPeople, changeSubscription } from '../people'
import { madeUpAccount, somebody } from '../made-up'
import type { Database } from '../query'

let db: Database
let list: number
beforeEach(() => ({ db, list } = madeUpAccount()))

const exported = (choice: Parameters<typeof exportPeople>[1]) =>
  [...exportPeople(db, choice, 1_000)].flat()

test('nobody is on file: nothing comes out', () => {
  expect(exported({ shown: {} })).toEqual([])
})

test('people come with their values, tags and the lists they are subscribed to', () => {
  const tove = somebody(db, 'Tove', { values: { first_name: 'Tove', town: 'Orrin' }, list, now: 5 })
  const ivo = somebody(db, 'ivo', { list, now: 6 })
  changeSubscription(db, ivo, list, 'unsubscribed', { act: 'person', way: 'link' }, 7)
  tagPeople(db, [tove], tagNamed(db, 'club'), true)
  expect(exported({ shown: {} })).toEqual([
    {
      address: 'Tove@inkpost.example',
      values: { first_name: 'Tove', town: 'Orrin' },
      tags: ['club'],
      lists: ['Wind notes'],
      joinedAt: 5,
      ...unread,
    },
    { address: 'ivo@inkpost.example', values: {}, tags: [], lists: [], joinedAt: 6, ...unread },
  ])
})
const unread = { orders: 0, spent: 0, openedAt: null, tier: 'silent' }

test('those a table shows: of a list, suppressed, or found', () => {
  const tove = somebody(db, 'tove', { list })
  const ivo = somebody(db, 'ivo')
  suppressPeople(db, [ivo], 'asked us to', 3)
  const addresses = (shown: Parameters<typeof idsOfPeople>[1]) =>
    exported({ shown }).map(({ address }) => address)
  expect(addresses({ listId: list })).toEqual(['tove@inkpost.example'])
  expect(addresses({ suppressed: true })).toEqual(['ivo@inkpost.example'])
  expect(addresses({ search: 'vo' })).toEqual(['ivo@inkpost.example'])
  expect(idsOfPeople(db, {})).toEqual([tove, ivo])
  expect(idsOfPeople(db, { search: 'nobody' })).toEqual([])
})

test('some by their ids, or those a rule keeps', () => {
  const tove = somebody(db, 'tove', { list })
  const ivo = somebody(db, 'ivo')
  somebody(db, 'orla')
  suppressPeople(db, [ivo], 'asked us to', 3)
  const addresses = (choice: Parameters<typeof exportPeople>[1]) =>
    exported(choice).map(({ address }) => address)
  expect(addresses({ ids: [ivo, tove] })).toEqual(['tove@inkpost.example', 'ivo@inkpost.example'])
  const onList = {
    kind: 'on-list' as const,
    listId: list,
    state: 'subscribed' as const,
    since: null,
    way: null,
  }
  expect(addresses({ rule: onList })).toEqual(['tove@inkpost.example'])
  expect(addresses({ rule: { kind: 'segment', segmentId: 77 } })).toEqual([])
})

test('many come in batches, each person once', () => {
  db.sqlite.transaction(() => {
    for (let i = 0; i < 4_500; i++) somebody(db, `reader${i}`)
  })()
  const batches = [...exportPeople(db, { shown: {} }, 1_000)]
  expect(batches.map((batch) => batch.length)).toEqual([2_000, 2_000, 500])
  expect(new Set(batches.flat().map(({ address }) => address)).size).toBe(4_500)
})
