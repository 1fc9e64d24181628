import { beforeAll, expect, test } from 'vitest'
import { isIn } from '../../core/counting'
import { DAY, HOUR } from '../../core/time'
import { makeAccount } from '../../demo/account'
import { all, openMemory, q, run, type Database } from '..'
import { addList, suppress, changeSubscription } from '../people'
import { mailingById, totalsOf } from '../mailings'
import { earlierSelf, earlierTotals } from './earlier'
import {
  growthByDay,
  hoursOf,
  linkClicks,
  providersSince,
  reasonsOf,
  sentSubjects,
} from './results'

const now = Date.UTC(2026, 10, 23, 9, 40)
let db: Database
let sent: number[]

beforeAll(async () => {
  db = openMemory()
  await makeAccount(db, { seed: 5, size: 400, now, passwordHash: '!' })
  sent = all(db, q.selectFrom('mailings').select('id').where('state', '=', 'sent')).map(
    ({ id }) => id,
  )
})

const recipientsOf = (id: number) =>
  all(db, q.selectFrom('recipients').selectAll().where('mailing_id', '=', id))

test('hours sum to the people who opened and clicked', () => {
  for (const id of sent) {
    const hours = hoursOf(db, id)
    const rows = recipientsOf(id)
    const sum = (of: 'opens' | 'clicks') => hours.reduce((total, hour) => total + hour[of], 0)
    expect(sum('opens')).toBe(rows.filter((row) => row.opened_at !== null).length)
    expect(sum('clicks')).toBe(rows.filter((row) => row.clicked_at !== null).length)
    expect(hours.every(({ hour }) => hour >= 0)).toBe(true)
  }
})

test('what providers made of the mail of some time is what its rows say, whatever kind of mail it was', () => {
  const sequences = all(
    db,
    q.selectFrom('mailings').select('id').where('sequence_id', 'is not', null),
  ).map(({ id }) => id)
  const rows = all(
    db,
    q
      .selectFrom('recipients')
      .innerJoin('people', 'people.id', 'recipients.person_id')
      .selectAll('recipients')
      .select('domain'),
  )
  const ofSequences = new Set(sequences)
  let fromSequences = 0
  for (const days of [0.5, 1, 7, 30, 90, 400]) {
    const since = now - days * DAY
    const raw = rows.filter(
      (row) => (row.accepted_at ?? row.at) >= since && isIn(row.state, 'tried'),
    )
    fromSequences += raw.filter(({ mailing_id }) => ofSequences.has(mailing_id)).length
    const shown = providersSince(db, since)
    const expected = [...new Set(raw.map(({ domain }) => domain))].map((domain) => {
      const there = raw.filter((row) => row.domain === domain)
      const n = (holds: (row: (typeof raw)[number]) => boolean) => there.filter(holds).length
      return {
        domain,
        recipients: there.length,
        delivered: n(({ state }) => isIn(state, 'delivered')),
        bounced: n(({ state }) => isIn(state, 'bounced')),
        complained: n(({ state }) => isIn(state, 'complained')),
        deferred: n(({ state }) => isIn(state, 'deferred')),
        opened: n(({ opened_at }) => opened_at !== null),
        clicked: n(({ clicked_at }) => clicked_at !== null),
      }
    })
    expect(shown).toEqual(
      expected
        .sort((a, b) => b.recipients - a.recipients || (a.domain < b.domain ? -1 : 1))
        .slice(0, 12),
    )
  }
  expect(fromSequences).toBeGreaterThan(0)
})

test('nobody is counted twice on one link, and no more than all who clicked followed any', () => {
  for (const id of sent.slice(0, 12)) {
    const { clicked } = totalsOf(db, id)!
    for (const link of linkClicks(db, id)) {
      expect(link.people).toBeLessThanOrEqual(Math.min(link.clicks, clicked))
      expect(link.url).toMatch(/^https?:/)
    }
  }
})

test('reasons are those of the people who did not get it', () => {
  for (const id of sent.slice(-12)) {
    const totals = totalsOf(db, id)!
    const told = reasonsOf(db, id)
    const of = (state: string) =>
      told.filter((row) => row.state === state).reduce((sum, { n }) => sum + n, 0)
    expect(of('failed')).toBe(totals.failed)
    expect(of('bounced')).toBe(totals.bounced)
  }
})

test('the mailings before one are of its list, sent, and the latest first', () => {
  const last = all(
    db,
    q.selectFrom('mailings').selectAll().where('state', '=', 'sent').orderBy('started_at', 'desc'),
  )[0]!
  const earlier = earlierTotals(db, last, 12, null)
  const started = earlier.map(
    ({ id }) => all(db, q.selectFrom('mailings').selectAll().where('id', '=', id))[0]!,
  )
  expect(started.every((mailing) => mailing.list_id === last.list_id)).toBe(true)
  const times = started.map((mailing) => mailing.started_at!)
  expect(times).toEqual([...times].sort((a, b) => b - a))
  expect(times.every((time) => time < last.started_at!)).toBe(true)
})

test('at an age, what had come is what the rows say came before it, to the hour', () => {
  const last = mailingById(db, sent.at(-1)!)!
  for (const age of [0, HOUR, 5.5 * HOUR, 26 * HOUR, 9 * DAY, 800 * DAY])
    for (const one of earlierTotals(db, { ...last, started_at: now }, 12, age)) {
      const began = mailingById(db, one.id)!.started_at!
      const by = (column: 'opened_at' | 'clicked_at' | 'left_at', within: number) =>
        recipientsOf(one.id).filter((row) => row[column] !== null && row[column]! - began < within)
          .length
      for (const [shown, column] of [
        [one.opened, 'opened_at'],
        [one.clicked, 'clicked_at'],
      ] as const) {
        expect(shown).toBeGreaterThanOrEqual(by(column, Math.floor(age / HOUR) * HOUR))
        expect(shown).toBeLessThanOrEqual(by(column, Math.ceil(age / HOUR) * HOUR))
      }
      expect(one.left_list).toBe(by('left_at', age))
      expect(earlierSelf(db, one.id, age)).toEqual(one)
    }
  const [old] = earlierTotals(db, { ...last, started_at: now }, 1, 800 * DAY)
  expect(old).toMatchObject(earlierTotals(db, { ...last, started_at: now }, 1, null)[0]!)
  expect(old!.opened).toBeGreaterThan(0)
})

test('growth counts each day’s people once: who joined, who left, who was suppressed', () => {
  const small = openMemory()
  const lists = ['Wind notes', 'Offers'].map((name) => addList(small, { name, description: '' }, 0))
  const person = (at: number) => {
    const normal = `p${at}@inkpost.example`
    const { id } = run(
      small,
      q.insertInto('people').values({
        address: normal,
        normal,
        domain: 'inkpost.example',
        joined_at: at,
        changed_at: at,
      }),
    )
    for (const list of lists)
      changeSubscription(
        small,
        id,
        list,
        'subscribed',
        { act: 'person', way: 'form', wording: 'I want it.' },
        at,
      )
    return id
  }
  const [first, second] = [person(1), person(HOUR)]
  person(DAY)
  // Somebody who leaves two lists on one day has left once.
  for (const list of lists)
    changeSubscription(
      small,
      first,
      list,
      'unsubscribed',
      { act: 'person', way: 'link' },
      2 * DAY + 5,
    )
  suppress(small, second, 'complained', '', 3 * DAY)
  expect(growthByDay(small, 0, DAY)).toEqual({
    joined: [
      { day: 0, n: 2 },
      { day: 1, n: 1 },
    ],
    left: [{ day: 2, n: 1 }],
    aside: [{ day: 3, n: 1 }],
  })
  expect(growthByDay(small, 10 * DAY, DAY)).toEqual({ joined: [], left: [], aside: [] })
})

test('subjects come with the share that opened, of mailings that went to enough people', () => {
  const subjects = sentSubjects(db)
  const tested = new Set(
    all(db, q.selectFrom('mailing_variants').select('mailing_id as id').where('no', '>', 0)).map(
      ({ id }) => id,
    ),
  )
  expect(tested.size).toBeGreaterThan(0)
  const enough = sent.filter((id) => totalsOf(db, id)!.accepted >= 50 && !tested.has(id))
  expect(subjects).toHaveLength(enough.length)
  expect(enough.length).toBeGreaterThan(5)
  for (const { subject, opened } of subjects) {
    expect(subject).not.toBe('')
    expect(opened).toBeGreaterThanOrEqual(0)
    expect(opened).toBeLessThanOrEqual(1)
  }
})
