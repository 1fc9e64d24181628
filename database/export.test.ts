import { beforeEach, expect, test } from 'vitest'
import { exportPeople } from './export'
import { madeUpAccount, somebody } from './made-up'
import { tagNamed } from './tags'
import { setPeopleAside, tagPeople } from './person-changes'
import type { Database } from './query'
import { changeSubscription } from './subscriptions'

let db: Database
let list: number
beforeEach(() => ({ db, list } = madeUpAccount()))

const exported = (choice: Parameters<typeof exportPeople>[1]) =>
  [...exportPeople(db, choice, 1_000)].flat()

test('nobody is on file: nothing comes out', () => {
  expect(exported({ rule: null, ids: null })).toEqual([])
})

test('people come with their values, tags and the lists they are subscribed to', () => {
  const tove = somebody(db, 'Tove', { values: { first_name: 'Tove', town: 'Orrin' }, list, now: 5 })
  const ivo = somebody(db, 'ivo', { list, now: 6 })
  changeSubscription(db, ivo, list, 'unsubscribed', { act: 'person', way: 'link' }, 7)
  tagPeople(db, [tove], tagNamed(db, 'club'), true)
  expect(exported({ rule: null, ids: null })).toEqual([
    {
      address: 'Tove@inkpost.example',
      values: { first_name: 'Tove', town: 'Orrin' },
      tags: ['club'],
      lists: ['Wind notes'],
      joinedAt: 5,
    },
    { address: 'ivo@inkpost.example', values: {}, tags: [], lists: [], joinedAt: 6 },
  ])
})

test('some by their ids, or those a rule keeps', () => {
  const tove = somebody(db, 'tove', { list })
  const ivo = somebody(db, 'ivo')
  somebody(db, 'orla')
  setPeopleAside(db, [ivo], 'asked us to', 3)
  const addresses = (choice: Parameters<typeof exportPeople>[1]) =>
    exported(choice).map(({ address }) => address)
  expect(addresses({ rule: null, ids: [ivo, tove] })).toEqual([
    'tove@inkpost.example',
    'ivo@inkpost.example',
  ])
  const onList = {
    kind: 'on-list' as const,
    listId: list,
    state: 'subscribed' as const,
    since: null,
    way: null,
  }
  expect(addresses({ rule: onList, ids: null })).toEqual(['tove@inkpost.example'])
  expect(addresses({ rule: { kind: 'segment', segmentId: 77 }, ids: null })).toEqual([])
})

test('many come in batches, each person once', () => {
  db.sqlite.transaction(() => {
    for (let i = 0; i < 4_500; i++) somebody(db, `reader${i}`)
  })()
  const batches = [...exportPeople(db, { rule: null, ids: null }, 1_000)]
  expect(batches.map((batch) => batch.length)).toEqual([2_000, 2_000, 500])
  expect(new Set(batches.flat().map(({ address }) => address)).size).toBe(4_500)
})
