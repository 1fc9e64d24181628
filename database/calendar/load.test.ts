import { expect, test } from 'vitest'
import { DAY, HOUR } from '../../core/time'
import { startingLetter } from '../../core/letters'
import { plainPlan } from '../../core/dispatch'
import { emptyMap, insertStep } from '../../core/sequences'
import { closeMail, loadByDay, mailingsBetween, sequenceDays } from '.'
import { daysBetween } from './days'
import { claimSome, madeUpAccount, mailingOnItsWay, somebody } from '../made-up'
import { addList, changeSubscription } from '../people'
import { createMailing, holdMailing, moveMailing, updateMailing } from '../mailings'
import { claimsOf } from '../sending'
import { run, q, type Database } from '../query'

const now = Date.UTC(2026, 10, 23, 9)
function plan(db: Database, name: string, list: number, at: number) {
  const id = createMailing(db, { name, listId: list, letter: startingLetter() }, now)
  moveMailing(db, id, ['draft'], 'scheduled', { scheduled_at: at })
  return id
}

test('each day says how many get mail, and how many get several; days are those of the account', () => {
  const { db, list } = madeUpAccount({ zone: 'Pacific/Auckland' })
  const other = addList(db, { name: 'Offers', description: '' }, 0)
  const people = ['a', 'b', 'c', 'd'].map((name) => somebody(db, name, { list }))
  for (const person of people.slice(0, 2))
    changeSubscription(
      db,
      person,
      other,
      'subscribed',
      { act: 'person', way: 'form', wording: 'I want it.' },
      0,
    )
  somebody(db, 'e', { list: other })
  // 23 November 09:00 UTC is 22:00 in Auckland.
  plan(db, 'Late', list, now + HOUR)
  plan(db, 'Past midnight', other, now + 3 * HOUR)
  plan(db, 'Besides', other, now + 1.5 * HOUR)
  createMailing(db, { name: 'Draft', listId: list, letter: startingLetter() }, now)
  expect(loadByDay(db, '2026-11-23', '2026-11-24', now)).toMatchObject([
    { day: '2026-11-23', people: 5, several: 2 },
    { day: '2026-11-24', people: 3, several: 0 },
  ])
  expect(mailingsBetween(db, '2026-11-23', '2026-11-23').map(({ name }) => name)).toEqual([
    'Late',
    'Besides',
  ])
})

test('a time is in one day of those between two, also where clocks change', () => {
  const days = daysBetween('2026-10-24', '2026-10-26', 'Europe/London')
  // The 25th has 25 hours.
  expect(days.bounds.map((at, n) => at - (days.bounds[n - 1] ?? at))).toEqual([
    ...[0, 24 * HOUR, 25 * HOUR, 24 * HOUR],
  ])
  for (let n = 0; n < days.many; n++) {
    expect(days.dayAt(days.bounds[n]!)).toBe(n)
    expect(days.dayAt(days.bounds[n + 1]! - 1)).toBe(n)
  }
  expect([days.dayAt(days.begin - 1), days.dayAt(days.end)]).toEqual([null, null])
})

test('what has begun counts its recipients, not who would be one now', () => {
  const { db, list } = madeUpAccount({ zone: 'UTC' })
  somebody(db, 'a', { list })
  mailingOnItsWay(db, list, { now })
  somebody(db, 'late', { list })
  const waits = { people: 1, several: 0, held: 0, ofSequences: 0 }
  expect(loadByDay(db, '2026-11-20', '2026-11-30', now + DAY)).toMatchObject([
    { day: '2026-11-24', ...waits },
  ])
})

test('mail is on the day each gets it: accepted then, due then, and what stands still apart', () => {
  const { db, list } = madeUpAccount({ zone: 'UTC' })
  for (const name of ['a', 'b', 'c', 'd']) somebody(db, name, { list })
  const id = mailingOnItsWay(db, list, { now })
  const claims = claimsOf(db, 'engine', id)
  const settle = (at: number, to: 'accepted' | 'failed') => {
    const [claimed] = claimSome(claims, 1, at)
    claims.settle([{ personId: claimed!.person_id, round: 0, to, answer: null }], at)
  }
  settle(now, 'accepted')
  settle(now + DAY, 'accepted')
  // Who was refused has got nothing.
  settle(now + DAY, 'failed')
  const load = (at: number) =>
    loadByDay(db, '2026-11-20', '2026-11-30', at).map(({ day, people, held, mailings }) => [
      day.slice(-2),
      people,
      held,
      mailings,
    ])
  const one = [{ id, people: 1 }]
  expect(load(now + 2 * DAY)).toEqual([
    ['23', 1, 0, one],
    ['24', 1, 0, one],
    ['25', 1, 0, one],
  ])
  holdMailing(db, id, { held_by: 'hand', held_note: null }, now)
  expect(load(now + 3 * DAY)).toEqual([
    ['23', 1, 0, one],
    ['24', 1, 0, one],
    ['26', 0, 1, []],
  ])
})

test('a part that follows is on its own day, and a sequence’s mail on that of each person', () => {
  const { db, list } = madeUpAccount({ zone: 'UTC' })
  const people = ['a', 'b'].map((name) => somebody(db, name, { list }))
  const id = plan(db, 'Widening', list, now + HOUR)
  const pace = { pace: 'widening' as const, watchMinutes: 20 * 60 }
  updateMailing(db, id, { plan: JSON.stringify({ ...plainPlan, ...pace }) })
  const [load, ...more] = loadByDay(db, '2026-11-20', '2026-12-20', now)
  // Nobody has read anything: both are of the last tier, which follows when the others were watched.
  expect([load!.people, load!.mailings, more]).toEqual([2, [{ id, people: 2 }], []])
  expect(load!.day > '2026-11-24').toBe(true)

  run(
    db,
    q.insertInto('sequences').values({
      ...{ id: 1, name: 'Welcome', state: 'running', list_id: list, created_at: 0, version: 1 },
      map: JSON.stringify(emptyMap),
    } as never),
  )
  const mail = (n: number) => {
    const letter = startingLetter()
    const made = createMailing(db, { name: `Mail ${n}`, listId: list, letter }, now)
    run(db, q.updateTable('mailings').set({ sequence_id: 1 }).where('id', '=', made))
    return made
  }
  const map = insertStep(
    insertStep(
      insertStep(emptyMap, null, 'one', { kind: 'mail', mailingId: mail(1) }),
      'one',
      'wait',
      { kind: 'wait', ms: 3 * DAY },
    ),
    'wait',
    'two',
    { kind: 'mail', mailingId: mail(2) },
  )
  run(
    db,
    q
      .insertInto('sequence_versions')
      .values({ sequence_id: 1, version: 1, map: JSON.stringify(map), at: 0 }),
  )
  const inside = { sequence_id: 1, version: 1, entered_at: now, visit: 0 }
  run(
    db,
    q.insertInto('enrolments').values([
      { ...inside, person_id: people[0]!, step: 'one', due: now },
      { ...inside, person_id: people[1]!, step: 'wait', due: now + DAY },
    ]),
  )
  const ofSequences = () =>
    loadByDay(db, '2026-11-20', '2026-12-20', now).flatMap(({ day, ofSequences: n, held }) =>
      n || held ? [[day.slice(-2), n, held]] : [],
    )
  expect(ofSequences()).toEqual([
    ['23', 1, 0],
    ['24', 1, 0],
    ['26', 1, 0],
  ])
  run(db, q.updateTable('mailings').set({ state: 'draft' }).where('id', '=', id))
  // Beside a mailing that goes out within a day of its mail, and not beside one that stands still.
  expect(closeMail(db, 1, now)).toEqual({ people: 0, others: [], some: [] })
  const beside = plan(db, 'Beside', list, now + 2.5 * DAY)
  expect(closeMail(db, 1, now)).toMatchObject({
    people: 1,
    others: [{ of: `mailing ${beside}`, name: 'Beside', people: 1 }],
    some: [{ id: people[0], at: now + 3 * DAY, otherAt: now + 2.5 * DAY, of: 'Beside' }],
  })
  expect(closeMail(db, 2, now).people).toBe(0)
  moveMailing(db, beside, ['scheduled'], 'draft')
  expect(closeMail(db, 1, now).people).toBe(0)

  // Of the sequence alone, with what has gone out, and without what stands still.
  const [first] = db.sqlite.prepare('select id from mailings where sequence_id = 1').pluck().all()
  const got = { mailing_id: first as number, person_id: people[0]!, round: 0, state: 'accepted' }
  const before = now - 2 * DAY
  run(
    db,
    q
      .insertInto('recipients')
      .values({ ...got, at: before, accepted_at: before, due: before } as never),
  )
  const of = (ids: number[]) =>
    sequenceDays(db, ids, { from: '2026-11-21', to: '2026-11-26' }, now).map((one) => [
      one.id,
      one.sent.join(' '),
      one.coming.join(' '),
    ])
  // It says which day is its first.
  const [none] = sequenceDays(db, [7], { from: '2026-11-21', to: '2026-11-26' }, now)
  expect(none!.from).toBe(Date.UTC(2026, 10, 21))
  expect(of([1])).toEqual([[1, '1 0 0 0 0 0', '0 0 1 1 0 1']])
  expect(of([7])).toEqual([[7, '0 0 0 0 0 0', '0 0 0 0 0 0']])
  expect(of([])).toEqual([])
  run(db, q.updateTable('sequences').set({ state: 'paused' }))
  expect(of([1])).toEqual([[1, '1 0 0 0 0 0', '0 0 0 0 0 0']])
  expect(ofSequences().map(([day, , held]) => [day, held])).toEqual([
    ['23', 1],
    ['24', 1],
    ['26', 1],
  ])
})
