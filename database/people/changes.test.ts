import { beforeEach, expect, test } from 'vitest'
import { openMemory } from '../connect'
import { erasedAsker } from './erased'
import { addList } from './lists'
import { factsOf } from '../segments'
import { erasePerson } from './erase'
import { fillAccount } from '../made-up'
import { mergePeople } from './merge'
import { tagNamed } from './tags'
import {
  addNote,
  addPerson,
  changePerson,
  listPeople,
  suppressPeople,
  tagPeople,
  restorePeople,
} from './changes'
import { personDetails } from './people'
import { all, one, q, run, type Database } from '../query'
import { changeSubscription, subscriptionState } from './subscriptions'

let db: Database
let wind: number
let offers: number
let tove: number
let other: number
const now = 1_000_000

const add = (name: string, values = {}) =>
  addPerson(
    db,
    {
      address: `${name}@inkpost.example`,
      normal: `${name}@inkpost.example`,
      domain: 'inkpost.example',
      values,
    },
    now,
  )!

beforeEach(() => {
  db = openMemory()
  fillAccount(db)
  wind = addList(db, { name: 'Wind notes', description: '' }, 0)
  offers = addList(db, { name: 'Offers', description: '' }, 0)
  run(
    db,
    q
      .insertInto('letters')
      .values({ id: 1, subject: '', preview_text: '', document: '', version: 1, updated_at: 0 }),
  )
  for (const id of [1, 2])
    run(
      db,
      q.insertInto('mailings').values({
        id,
        name: `M${id}`,
        state: 'sending',
        list_id: wind,
        letter_id: 1,
        created_at: 0,
      }),
    )
  for (const mailing_id of [1, 2])
    run(db, q.insertInto('mailing_totals').values({ mailing_id, queued: 1 }))
  run(db, q.insertInto('agents').values({ id: 1, text: 'x' }))
  tove = add('tove', { first_name: 'Tove', town: 'Orrin' })
  other = add('tove.o', { last_name: 'Olsen', town: 'Hale Point', line_hand: 'left' })
})

const clicked = (mailing_id: number, person_id: number) => {
  run(
    db,
    q.insertInto('recipients').values({
      mailing_id,
      person_id,
      state: 'accepted',
      at: 1,
      due: 1,
      accepted_at: 5,
      opened_at: 6,
      clicked_at: 7,
    }),
  )
  run(
    db,
    q.insertInto('acts').values({
      mailing_id,
      person_id,
      kind: 'click',
      link: 1,
      at: 7,
      agent_id: 1,
      method: 'GET',
      verdict: 'human',
    }),
  )
}

test('a change can be undone by what it gives back, and another’s address is not taken', () => {
  const undo = changePerson(
    db,
    tove,
    {
      address: 'Tove@new.example',
      normal: 'tove@new.example',
      domain: 'new.example',
      values: { town: null, first_name: 'T.', line_hand: 'right' },
    },
    now,
  )!
  expect(factsOf(db, tove)).toMatchObject({
    normal: 'tove@new.example',
    values: { first_name: 'T.', line_hand: 'right' },
  })
  changePerson(db, tove, undo, now)
  expect(factsOf(db, tove)).toMatchObject({
    normal: 'tove@inkpost.example',
    values: { first_name: 'Tove', town: 'Orrin' },
  })
  expect(factsOf(db, tove)!.values).not.toHaveProperty('line_hand')
  expect(
    changePerson(db, tove, { address: 'x', normal: 'tove.o@inkpost.example', domain: 'x' }, now),
  ).toBeNull()
  expect(changePerson(db, 999, {}, now)).toBeNull()
  expect(
    addPerson(db, { address: 'x', normal: 'tove@inkpost.example', domain: 'x', values: {} }, now),
  ).toBeNull()
})

test('tagging tells for whom it changed something, so that undo touches only them', () => {
  const tag = tagNamed(db, 'owner')
  expect(tagNamed(db, 'owner')).toBe(tag)
  tagPeople(db, [tove], tag, true)
  expect(tagPeople(db, [tove, other], tag, true)).toEqual([other])
  expect(tagPeople(db, [tove, other], tag, false)).toEqual([tove, other])
})

test('listing by hand leaves its reason as evidence, and leaves out those suppressed', () => {
  suppressPeople(db, [other], 'asked by letter', now)
  expect(listPeople(db, [tove, other], wind, 'subscribed', 'asked at the festival', now)).toEqual([
    tove,
  ])
  expect(personDetails(db, tove)!.evidence[0]).toMatchObject({
    way: 'by hand',
    wording: 'asked at the festival',
  })
  expect(listPeople(db, [tove, other], wind, 'unsubscribed', 'asked', now)).toEqual([tove])
  expect(subscriptionState(db, other, wind)).toBeNull()
  expect(restorePeople(db, [tove, other])).toEqual([other])
  expect(suppressPeople(db, [other], 'again', now)).toEqual([other])
})

test('merging keeps what either had, and never makes anybody mailed who asked not to be', () => {
  changeSubscription(
    db,
    tove,
    wind,
    'subscribed',
    { act: 'person', way: 'form', wording: 'I want it.' },
    1,
  )
  changeSubscription(
    db,
    other,
    wind,
    'subscribed',
    { act: 'person', way: 'form', wording: 'I want it.' },
    1,
  )
  changeSubscription(db, other, wind, 'unsubscribed', { act: 'person', way: 'link' }, 2)
  changeSubscription(
    db,
    other,
    offers,
    'subscribed',
    { act: 'person', way: 'form', wording: 'I want it.' },
    3,
  )
  tagPeople(db, [other], tagNamed(db, 'owner'), true)
  addNote(db, other, 'Wren', 'Left-handed.', now)
  suppressPeople(db, [other], 'by telephone', now)
  clicked(1, other)
  clicked(2, other)
  clicked(2, tove)
  run(db, q.insertInto('orders').values({ number: 'G-1', person_id: other, at: 9, money: 500 }))
  expect(mergePeople(db, tove, other, now)).toBe(true)
  const facts = factsOf(db, tove)!
  expect(facts.values).toEqual({
    first_name: 'Tove',
    last_name: 'Olsen',
    town: 'Orrin',
    line_hand: 'left',
  })
  expect(facts.subscriptions.get(wind)!.state).toBe('unsubscribed')
  expect(facts.subscriptions.get(offers)!.state).toBe('subscribed')
  expect(facts.mail.map(({ mailingId }) => mailingId).sort()).toEqual([1, 2])
  expect(facts.orders).toHaveLength(1)
  expect(facts.clicks.length).toBeGreaterThanOrEqual(2)
  const details = personDetails(db, tove)!
  expect(details.suppressed).toMatchObject({ detail: 'by telephone' })
  expect(details.tags).toEqual(['owner'])
  expect(personDetails(db, other)).toBeNull()
  expect(one(db, q.selectFrom('facts').selectAll().where('person_id', '=', tove))).toMatchObject({
    sent: 2,
    opened: 2,
    clicked: 2,
    orders: 1,
    spent: 500,
  })
  expect(mergePeople(db, tove, tove, now)).toBe(false)
})

test('of somebody erased nothing is left but a hash that keeps them from coming back', () => {
  changeSubscription(
    db,
    tove,
    wind,
    'subscribed',
    { act: 'person', way: 'form', ip: '10.0.0.1', wording: 'I want it.' },
    1,
  )
  addNote(db, tove, 'Wren', 'Tove rang.', now)
  clicked(1, tove)
  run(
    db,
    q
      .insertInto('recipients')
      .values({ mailing_id: 2, person_id: tove, state: 'queued', at: 1, due: 1 }),
  )
  expect(erasedAsker(db)('tove@inkpost.example')).toBe(false)
  expect(erasePerson(db, tove, now)).toBe(true)
  const wasErased = erasedAsker(db)
  expect(wasErased('tove@inkpost.example')).toBe(true)
  expect(wasErased('tove.o@inkpost.example')).toBe(false)
  const everything = [
    'people',
    'evidence',
    'notes',
    'tasks',
    'subscriptions',
    'facts',
    'erased',
    'recipients',
    'acts',
  ]
    .map((table) => JSON.stringify(db.sqlite.prepare(`select * from ${table}`).all()))
    .join()
  expect(everything).not.toContain('tove@inkpost')
  expect(everything).not.toContain('rang')
  expect(everything).not.toContain('10.0.0.1')
  // Three letters at a time an address could be put together again: the index is as if they had never been in it.
  db.sqlite.exec(`
    create virtual table afresh using fts5 (words, content = '', tokenize = 'trigram', detail = none);
    insert into afresh (rowid, words)
      select id, normal || ' ' || coalesce(first_name, '') || ' ' || coalesce(last_name, '') from people;
    insert into afresh (afresh) values ('optimize')`)
  const lettersIn = (index: string) =>
    db.sqlite.prepare(`select hex(block) from ${index}_data where id > 10`).pluck().all()
  expect(lettersIn('people_words')).toEqual(lettersIn('afresh'))
  // The mailing's own counts still add up: one recipient that is nobody any more, one dropped.
  expect(
    all(db, q.selectFrom('recipients').select('state').orderBy('mailing_id')).map(
      ({ state }) => state,
    ),
  ).toEqual(['accepted', 'dropped'])
  expect(
    all(db, q.selectFrom('recipients').select('person_id')).every(({ person_id }) => person_id < 0),
  ).toBe(true)
  expect(erasePerson(db, tove, now)).toBe(false)
})
