import { addressed } from '../../core/delivery'
import fc from 'fast-check'
import { beforeEach, expect, test } from 'vitest'
import type { SubscriptionAct, SubscriptionState } from '../../core/people'
import { madeUpAccount, mailingOnItsWay, somebody } from '../made-up'
import { all, one, q, type Database } from '../query'
import { readRecipient } from '../sending'
import { changeSubscription, suppress, subscriptionState } from './subscriptions'
import { wordingId } from '../wordings'

let db: Database
let list: number
let tove: number
beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  tove = somebody(db, 'tove')
})
const evidence = () =>
  all(
    db,
    q
      .selectFrom('evidence')
      .select(['state', 'way', 'at'])
      .where('person_id', '=', tove)
      .orderBy('id'),
  )

test('each change leaves evidence; what changes nothing leaves none', () => {
  const by = { act: 'person', way: 'form', wording: 'I want it.' } as const
  changeSubscription(db, tove, list, 'subscribed', by, 10)
  changeSubscription(db, tove, list, 'subscribed', by, 11)
  changeSubscription(db, tove, list, 'unsubscribed', { act: 'person', way: 'link' }, 12)
  expect(evidence()).toEqual([
    { state: 'subscribed', way: 'form', at: 10 },
    { state: 'unsubscribed', way: 'link', at: 12 },
  ])
})

test('no import and nobody but the person brings back who has left', () => {
  changeSubscription(
    db,
    tove,
    list,
    'subscribed',
    { act: 'import', way: 'import', wording: 'I want it.' },
    10,
  )
  changeSubscription(db, tove, list, 'unsubscribed', { act: 'person', way: 'link' }, 11)
  expect(
    changeSubscription(
      db,
      tove,
      list,
      'subscribed',
      { act: 'import', way: 'import', wording: 'I want it.' },
      12,
    ),
  ).toBe('unsubscribed')
  expect(evidence()).toHaveLength(2)
  expect(
    changeSubscription(
      db,
      tove,
      list,
      'subscribed',
      { act: 'person', way: 'form', wording: 'I want it.' },
      13,
    ),
  ).toBe('subscribed')
})

test('whatever happens, the state is that of the last evidence', () => {
  const step = fc.record({
    wanted: fc.constantFrom<SubscriptionState>('pending', 'subscribed', 'unsubscribed'),
    act: fc.constantFrom<SubscriptionAct>('person', 'import'),
  })
  fc.assert(
    fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
      ;({ db, list } = madeUpAccount())
      tove = somebody(db, 'tove')
      let left = false
      steps.forEach(({ wanted, act }, at) => {
        const state = changeSubscription(
          db,
          tove,
          list,
          wanted,
          { act, way: act, wording: 'I want it.' },
          at,
        )
        expect(state).toBe(subscriptionState(db, tove, list))
        expect(state).toBe(evidence().at(-1)?.state ?? null)
        if (left && act === 'import') expect(state).toBe('unsubscribed')
        left = state === 'unsubscribed'
      })
    }),
    { numRuns: 60 },
  )
})

test('who leaves or is suppressed is dropped from what has not been sent yet', () => {
  const ivo = somebody(db, 'ivo', { list })
  const orla = somebody(db, 'orla', { list })
  const mailing = mailingOnItsWay(db, list, { now: 20 })
  changeSubscription(db, ivo, list, 'unsubscribed', { act: 'person', way: 'link' }, 21)
  suppress(db, orla, 'by-hand', 'asked by telephone', 22)
  expect(readRecipient(db, addressed(mailing, ivo))).toMatchObject({
    state: 'dropped',
    answer: 'unsubscribed',
  })
  expect(readRecipient(db, addressed(mailing, orla))).toMatchObject({
    state: 'dropped',
    answer: 'suppressed',
  })
})

test('who leaves one list still gets the mailings of another', () => {
  const ivo = somebody(db, 'ivo', { list })
  const mailing = mailingOnItsWay(db, list, { now: 20 })
  const other = db.sqlite
    .prepare("insert into lists (key, name, description, created_at) values ('o', 'Offers', '', 0)")
    .run().lastInsertRowid as number
  changeSubscription(
    db,
    ivo,
    other,
    'subscribed',
    { act: 'person', way: 'form', wording: 'I want it.' },
    20,
  )
  changeSubscription(db, ivo, other, 'unsubscribed', { act: 'person', way: 'link' }, 21)
  expect(readRecipient(db, addressed(mailing, ivo))).toMatchObject({ state: 'queued' })
})

test('the first reason for setting somebody aside stays', () => {
  suppress(db, tove, 'complained', 'first', 1)
  suppress(db, tove, 'by-hand', 'second', 2)
  expect(
    one(db, q.selectFrom('set_aside').selectAll().where('person_id', '=', tove)),
  ).toMatchObject({ reason: 'complained', detail: 'first', at: 1 })
})

test('a wording of consent is kept once', () => {
  const id = wordingId(db, 'I want the wind notes.')
  expect(wordingId(db, 'I want the wind notes.')).toBe(id)
  expect(wordingId(db, 'I want offers.')).not.toBe(id)
})

test('what a reader’s program says of itself is cut to what can be kept', () => {
  changeSubscription(
    db,
    tove,
    list,
    'subscribed',
    {
      act: 'person',
      way: 'form',
      wording: 'I want it.',
      agent: 'x'.repeat(5_000),
      ip: '192.0.2.1',
    },
    1,
  )
  expect(one(db, q.selectFrom('evidence').selectAll())).toMatchObject({
    agent: 'x'.repeat(300),
    ip: '192.0.2.1',
  })
})
