import { beforeAll, expect, test } from 'vitest'
import { DAY, dayOf, HOUR } from '../../core/time'
import { makeAccount } from '../../demo/account'
import { isIn } from '../../core/counting'
import { all, openMemory, q, type Database } from '..'
import { hoursOf } from './results'
import {
  cohortsByMonth,
  growthByMonth,
  monthsUpTo,
  opensByHour,
  sentSince,
  sequenceMailByMonth,
} from './account-results'

const now = Date.UTC(2026, 10, 23, 9, 40)
const zone = 'Europe/London'
const { months, since } = monthsUpTo(now, 12, zone)
let db: Database
beforeAll(async () => {
  db = openMemory()
  await makeAccount(db, { seed: 5, size: 400, now, passwordHash: '!' })
})

test('a year is twelve months, the first from its first moment', () => {
  expect([months[0], months.at(-1), months.length]).toEqual(['2025-12', '2026-11', 12])
  expect(dayOf(since, zone)).toBe('2025-12-01')
  expect(dayOf(since - 1, zone)).toBe('2025-11-30')
})

test('months hold those who joined and left in them, counted one by one', () => {
  const people = all(db, q.selectFrom('people').select(['id', 'joined_at']))
  const inMonth = (times: number[]) =>
    months.map(
      (month) => times.filter((at) => at >= since && dayOf(at, zone).startsWith(month)).length,
    )
  const joined = inMonth(people.map((person) => person.joined_at))
  expect(growthByMonth(db, since, months, zone).map((one) => one.joined)).toEqual(joined)
  const cohorts = cohortsByMonth(db, since, months, zone, now)
  expect(cohorts.map((one) => one.joined)).toEqual(joined)
  const facts = new Map(
    all(db, q.selectFrom('facts').selectAll()).map((fact) => [fact.person_id, fact]),
  )
  const lately = people.filter(({ id }) => (facts.get(id)!.last_opened_at ?? 0) >= now - 30 * DAY)
  expect(cohorts.map((one) => one.reading)).toEqual(inMonth(lately.map((one) => one.joined_at)))
  for (const { joined, on, bought } of cohorts) {
    expect(on).toBeLessThanOrEqual(joined)
    expect(bought).toBeLessThanOrEqual(joined)
  }
})

test('opens by hour are all that came, each within an hour of when it did', () => {
  const week = opensByHour(db, since, zone)
  const opens = all(
    db,
    q
      .selectFrom('recipients')
      .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
      .select(['recipients.opened_at', 'mailings.sequence_id', 'mailings.started_at'])
      .where('recipients.opened_at', 'is not', null),
  ).filter(({ sequence_id, started_at, opened_at }) =>
    sequence_id === null ? started_at! >= since : opened_at! >= since,
  )
  expect(week.flat().reduce((sum, n) => sum + n, 0)).toBe(opens.length)
  const near = new Set(
    opens.flatMap(({ opened_at: at }) =>
      [at! - HOUR, at!, at! + HOUR].map((time) => Math.floor(time / HOUR) % 168),
    ),
  )
  expect(near.size).toBeGreaterThanOrEqual(week.flat().filter((n) => n > 0).length)
  const totals = sentSince(db, since)
  const bySelf = opens.filter(({ sequence_id }) => sequence_id === null)
  expect(totals.reduce((sum, { opened }) => sum + opened, 0)).toBe(bySelf.length)
})

test('sequences’ mail is in the month it was accepted in, and in each reader’s own hours', () => {
  const rows = all(
    db,
    q
      .selectFrom('recipients')
      .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
      .selectAll('recipients')
      .where('mailings.sequence_id', 'is not', null),
  )
  expect(rows.length).toBeGreaterThan(20)
  for (const { month, ...shown } of sequenceMailByMonth(db, since, months, zone)) {
    const own = rows.filter(
      ({ accepted_at: at }) => at !== null && dayOf(at, zone).startsWith(month),
    )
    expect([month, shown]).toEqual([
      month,
      {
        delivered: own.filter(({ state }) => isIn(state, 'delivered')).length,
        opened: own.filter(({ opened_at }) => opened_at !== null).length,
        clicked: own.filter(({ clicked_at }) => clicked_at !== null).length,
      },
    ])
  }
  for (const id of new Set(rows.map(({ mailing_id }) => mailing_id))) {
    const expected = new Map<number, number>()
    for (const { mailing_id, opened_at, accepted_at } of rows)
      if (mailing_id === id && opened_at !== null) {
        const hour = Math.floor((opened_at - accepted_at!) / HOUR)
        expected.set(hour, (expected.get(hour) ?? 0) + 1)
      }
    const shown = hoursOf(db, id).filter(({ opens }) => opens > 0)
    expect(new Map(shown.map(({ hour, opens }) => [hour, opens]))).toEqual(expected)
  }
})
