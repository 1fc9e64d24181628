import { expect, test } from 'vitest'
import { all, openMemory, q, type Database } from '../database'
import { gapsIn, linksOf } from '../core/letters'
import { mapProblems } from '../core/sequences'
import { advanceDue, nextStepDue, readSequences, runningSequences } from '../database/sequences'
import { commentsOn, letterVersions, letterOf } from '../database/letters'
import { recountTotals, renditionsFor } from '../database/mailings'
import { resultsBy } from '../database/results'
import { makeAccount } from './account'

const NOW = Date.UTC(2026, 10, 23, 9, 40)
const make = async (seed: number, size = 300): Promise<Database> => {
  const db = openMemory()
  await makeAccount(db, { seed, size, now: NOW, passwordHash: '!' })
  return db
}
const people = (db: Database) => all(db, q.selectFrom('people').selectAll())

test('the same seed makes the same account, another seed another', async () => {
  const [one, same, other] = await Promise.all([make(1), make(1), make(2)])
  expect(people(one)).toEqual(people(same))
  expect(all(one, q.selectFrom('recipients').selectAll())).toEqual(
    all(same, q.selectFrom('recipients').selectAll()),
  )
  expect(people(one)).not.toEqual(people(other))
})

test('its history adds up, and something is going on', async () => {
  const db = await make(3)
  const mailings = all(db, q.selectFrom('mailings').selectAll())
  expect(mailings.filter(({ state }) => state === 'sent')).toHaveLength(70)
  expect(mailings.filter(({ state }) => state === 'scheduled')).toHaveLength(3)
  for (const { mailing_id, ...totals } of all(db, q.selectFrom('mailing_totals').selectAll()))
    expect(totals).toMatchObject(recountTotals(db, mailing_id))
  const opens = all(
    db,
    q.selectFrom('recipients').select(['accepted_at', 'opened_at', 'clicked_at']),
  )
  for (const { accepted_at, opened_at, clicked_at } of opens) {
    if (opened_at !== null) expect(opened_at).toBeGreaterThan(accepted_at!)
    if (clicked_at !== null) expect(clicked_at).toBeGreaterThanOrEqual(opened_at!)
  }
  const scripts = people(db).map(({ first_name }) => first_name ?? '')
  expect(
    scripts.some((name) => /\p{Script=Greek}|\p{Script=Cyrillic}|\p{Script=Han}/u.test(name)),
  ).toBe(true)
  expect(scripts.filter((name) => name === '').length).toBeGreaterThan(5)
})

test('four sequences, with people inside who are led on from where they stand', async () => {
  const db = await make(6, 2_500)
  const states = readSequences(db).map(({ name, state, inside }) => [name, state, inside > 0])
  expect(states).toEqual([
    ['Basket left behind', 'running', expect.any(Boolean)],
    ['First breeze', 'running', true],
    ['First course', 'paused', false],
    ['Quiet since summer', 'draft', false],
  ])
  const due = nextStepDue(db)!
  expect(due).toBeGreaterThan(NOW)
  expect(advanceDue(db, due)).toBeGreaterThan(0)
  for (const sequence of runningSequences(db))
    expect(mapProblems(sequence.map, sequence.list_id)).toEqual([])
})

test('the sale differs per reader, was written in two sittings, and something in it was asked', async () => {
  const db = await make(4)
  const sale = all(db, q.selectFrom('mailings').selectAll()).find(
    ({ name }) => name === 'Gale season sale',
  )!
  const { document } = letterOf(db, sale.letter_id)
  const renditions = renditionsFor(db, document, { listId: sale.list_id!, rule: null }, NOW)
  expect(renditions).toHaveLength(4)
  expect(gapsIn(document, renditions)).toEqual([])
  expect(letterVersions(db, sale.letter_id)).toHaveLength(3)
  expect(commentsOn(db, sale.letter_id)).toMatchObject([
    { answers: [{ byName: 'Wren Galewright' }] },
  ])
})

test('the last offer differed per reader: each was shown something, and clicked only what they were shown', async () => {
  const db = await make(4)
  const offer = all(db, q.selectFrom('mailings').selectAll()).findLast(
    ({ name }) => name === 'Offer: The Delta 7 is back',
  )!
  expect(resultsBy(db, offer.id, 'rendition', NOW)!.length).toBeGreaterThanOrEqual(3)
  const accepted = all(
    db,
    q
      .selectFrom('recipients')
      .select(['person_id', 'truth'])
      .where('mailing_id', '=', offer.id)
      .where('state', '=', 'accepted'),
  )
  expect(accepted.every(({ truth }) => truth !== null)).toBe(true)
  const stunt = new Set(
    accepted.filter(({ truth }) => truth! % 2 === 1).map(({ person_id }) => person_id),
  )
  const links = linksOf(letterOf(db, offer.letter_id).document)
  const clicked = all(
    db,
    q
      .selectFrom('acts')
      .select('person_id')
      .where('mailing_id', '=', offer.id)
      .where(
        'link',
        '=',
        links.findIndex(({ blockId }) => blockId === 'stunt-button'),
      )
      .where('verdict', '=', 'human'),
  )
  expect(clicked.length).toBeGreaterThan(0)
  expect(clicked.every(({ person_id }) => stunt.has(person_id))).toBe(true)
})

test('who left did so by one letter that they had read, and who is suppressed is so by what came of a letter', async () => {
  const db = await make(8, 1_500)
  const rows = all(
    db,
    q
      .selectFrom('recipients as r')
      .innerJoin('mailings as m', 'm.id', 'r.mailing_id')
      .leftJoin('subscriptions as s', (join) =>
        join.onRef('s.person_id', '=', 'r.person_id').onRef('s.list_id', '=', 'm.list_id'),
      )
      .leftJoin('set_aside as a', 'a.person_id', 'r.person_id')
      .select(['r.person_id', 'r.state', 'r.at', 'r.opened_at', 'r.left_at', 'm.list_id'])
      .select(['s.state as subscription', 's.since', 'a.reason', 'a.at as aside_at']),
  )
  const left = rows.filter(({ left_at }) => left_at !== null)
  expect(left.length).toBeGreaterThan(20)
  const whose = left.map(({ person_id, list_id }) => `${person_id} ${list_id}`)
  expect(new Set(whose).size).toBe(whose.length)
  for (const row of left) {
    expect([row.subscription, row.since]).toEqual(['unsubscribed', row.left_at])
    expect(row.opened_at).toBeLessThan(row.left_at!)
  }
  const complained = rows.filter(({ state }) => state === 'complained')
  for (const row of complained) {
    expect([row.reason, row.aside_at]).toEqual(['complained', row.at])
    expect(row.opened_at).toBeLessThan(row.at)
  }
  const dead = rows.filter(({ reason, at, aside_at }) => reason === 'bounced' && at === aside_at)
  expect(dead.length).toBeGreaterThan(10)
  expect(dead.every(({ state }) => state === 'bounced')).toBe(true)
})

test('money comes after clicks: much of what is bought was bought soon after a letter’s link was followed', async () => {
  const db = await make(8, 1_500)
  const orders = all(db, q.selectFrom('orders').select(['person_id', 'at']))
  const clicks = all(
    db,
    q
      .selectFrom('recipients')
      .select(['person_id', 'clicked_at'])
      .where('clicked_at', 'is not', null),
  )
  const soon = orders.filter((order) =>
    clicks.some(
      ({ person_id, clicked_at: at }) =>
        person_id === order.person_id && order.at >= at! && order.at - at! < 5 * 86_400_000,
    ),
  )
  expect(soon.length / orders.length).toBeGreaterThan(0.2)
  expect(soon.length / orders.length).toBeLessThan(0.8)
})
