import { beforeAll, expect, test } from 'vitest'
import { startingLetter } from '../../core/letters'
import { noVariant, partsOf, plainPlan, type DispatchPlan } from '../../core/dispatch'
import { HOUR, MINUTE } from '../../core/time'
import { makeAccount } from '../../demo/account'
import { all, one, openMemory, q, run, type Database } from '..'
import { addField, changePerson } from '../people'
import { eachForeseen, getsIt } from './foreseen'
import { createMailing, mailingById, moveMailing, updateMailing } from './mailings'
import { addParts, beginPart, holdOut, partsOfMailing } from './parts'
import { fixVariants } from './variants'

const now = Date.UTC(2026, 10, 23, 9, 40)
const start = now + 5 * HOUR
const zone = 'Europe/London'
let db: Database
let list: number

beforeAll(async () => {
  db = openMemory()
  await makeAccount(db, { seed: 7, size: 300, now, passwordHash: '!' })
  list = one(db, q.selectFrom('lists').select('id').orderBy('id'))!.id
})

function scheduled(change: Partial<DispatchPlan>): number {
  const id = createMailing(db, { name: 'Foreseen', listId: list, letter: startingLetter() }, now)
  updateMailing(db, id, { plan: JSON.stringify({ ...plainPlan, ...change }) })
  moveMailing(db, id, ['draft'], 'scheduled', { scheduled_at: start })
  return id
}

const foreseen = (id: number, at = now) => {
  const found = new Map<number, number>()
  eachForeseen(db, mailingById(db, id)!, at, (person, due) => {
    expect(found.has(person)).toBe(false)
    found.set(person, due)
  })
  return found
}
const recipients = (id: number) =>
  new Map(
    all(
      db,
      q.selectFrom('recipients').select(['person_id', 'due']).where('mailing_id', '=', id),
    ).map(({ person_id, due }) => [person_id, due]),
  )
const whoGets = (id: number, at = now) =>
  all(
    db,
    q
      .selectFrom('people')
      .select('id')
      .where(() => getsIt(db, mailingById(db, id)!, at) as never),
  ).map((row) => row.id)

const half = {
  of: 'subject' as const,
  variants: [noVariant, { ...noVariant, subject: 'Other' }],
  share: 0.4,
  measure: 'open' as const,
  hours: 3,
  decides: 'itself' as const,
}
const plans: [string, Partial<DispatchPlan>][] = [
  ['at once', {}],
  ['with a holdout', { holdout: 0.2 }],
  ['keenest first', { pace: 'widening', watchMinutes: 90, holdout: 0.1 }],
  ['each at their best hour', { pace: 'best-hour' }],
  ['on each clock', { pace: 'local-time', zoneField: 'zone', localAt: '2026-11-24T09:00' }],
  ['a test and its rest', { test: half }],
  ['a test of everybody', { test: { ...half, share: 1 } }],
  ['a test before tiers', { test: half, pace: 'widening', watchMinutes: 60 }],
  [
    'a test of hours',
    {
      test: {
        ...half,
        of: 'hour',
        variants: [
          { ...noVariant, hour: 7 },
          { ...noVariant, hour: 19 },
        ],
      },
    },
  ],
]

test.each(plans)('who gets it when is foreseen as it then is planned: %s', (_, change) => {
  addZones()
  const id = scheduled(change)
  const before = foreseen(id)
  expect(before.size).toBeGreaterThan(50)
  expect(whoGets(id).toSorted()).toEqual([...before.keys()].toSorted())

  const plan = { ...plainPlan, ...change }
  const audience = { listId: list, rule: null, leftOut: null, cap: null }
  moveMailing(db, id, ['scheduled'], 'sending', { started_at: start })
  fixVariants(db, mailingById(db, id)!, plan, 'Galewright', start)
  holdOut(db, mailingById(db, id)!, audience, plan.holdout, start)
  addParts(db, id, partsOf(plan))
  run(db, q.updateTable('mailings').set({ winner: 0 }).where('id', '=', id))
  let at = start
  for (const part of partsOfMailing(db, id)) {
    beginPart(db, mailingById(db, id)!, part, audience, zone, at)
    // What has begun and what is still to come are together always those of before.
    const still = foreseen(id, at)
    for (const [person, due] of [...recipients(id), ...still])
      expect([person, due]).toEqual([person, before.get(person)])
    expect(recipients(id).size + still.size).toBe(before.size)
    expect(whoGets(id, at).length).toBe(before.size)
    at += part.kind === 'test' ? half.hours * HOUR : plan.watchMinutes * MINUTE
  }
  expect(recipients(id)).toEqual(new Map([...before].toSorted((a, b) => a[0] - b[0])))
})

let added = false
function addZones() {
  if (added) return
  added = true
  addField(db, { key: 'zone', name: 'Zone', kind: 'text' })
  for (const { id } of all(db, q.selectFrom('people').select('id')))
    if (id % 3)
      changePerson(
        db,
        id,
        { values: { zone: id % 2 ? 'Pacific/Auckland' : 'America/New_York' } },
        now,
      )
}
