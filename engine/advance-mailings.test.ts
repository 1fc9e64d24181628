import fc from 'fast-check'
import { beforeEach, expect, test } from 'vitest'
import { plainPlan, readPlan, type DispatchPlan } from '../core/dispatch'
import { keennessOf } from '../core/standing'
import { DAY, HOUR, MINUTE } from '../core/time'
import { all, q, raw, run, type Database } from '../database'
import { claimsOf } from '../database/sending'
import { testResults } from '../cases/results'
import { decideTest, goalCounts, variantCounts } from '../database/results'
import { addField } from '../database/people'
import { claimSome, madeUpAccount, somebody } from '../database/made-up'
import {
  createMailing,
  goOnWithMailing,
  holdMailing,
  mailingById,
  moveMailing,
  recountTotals,
  totalsOf,
  updateMailing,
  partsOfMailing,
  watchAnew,
} from '../database/mailings'
import { finishedLetter } from '../tests/subscribers'
import { advanceMailings, nextAdvance } from './advance-mailings'
import { madeUpEngine } from './made-up'
import { startDueMailings } from './start-mailings'
import { sql } from 'kysely'

let db: Database
let list: number
let engine: ReturnType<typeof madeUpEngine>
let people: number[]
beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  people = Array.from({ length: 300 }, (_, i) => somebody(db, `reader${i}`, { list }))
  engine = madeUpEngine(db, { smtpUrl: 'smtp://127.0.0.1:9' })
  const asked_at = engine.time.now
  run(
    db,
    q.insertInto('link_checks').values({
      ...{ url: 'https://galewright.example/forecast', asked_at, checked_at: asked_at + DAY },
      status: 200,
    }),
  )
})

const subjects = (of: string[]) => of.map((subject) => ({ subject }))
const tried = (test: object, more: object = {}) =>
  readPlan({
    ...more,
    test: { of: 'subject', variants: subjects(['', 'Other', 'Third']), ...test },
  })
async function begin(plan: DispatchPlan): Promise<number> {
  const id = createMailing(db, { name: 'Tried', listId: list, letter: finishedLetter() }, 0)
  updateMailing(db, id, { plan: JSON.stringify(plan) })
  moveMailing(db, id, ['draft'], 'scheduled', { scheduled_at: engine.time.now })
  await startDueMailings(engine)
  return id
}
const rows = (id: number) =>
  all(db, q.selectFrom('recipients').selectAll().where('mailing_id', '=', id).orderBy('person_id'))
/** All that are due get an answer. */
function deliver(id: number, to: 'accepted' | 'failed' = 'accepted') {
  const claims = claimsOf(db, engine.id, id)
  const claimed = claimSome(claims, 1_000, engine.time.now)
  claims.settle(
    claimed.map(({ person_id }) => ({ personId: person_id, round: 0, to, answer: null })),
    engine.time.now,
  )
  return claimed.length
}
async function later(ms: number) {
  engine.time.now += ms
  while (await advanceMailings(engine));
}
function mark(
  id: number,
  column: 'opened_at' | 'clicked_at',
  only: (row: ReturnType<typeof rows>[number]) => boolean,
) {
  for (const row of rows(id).filter(only))
    run(
      db,
      q
        .updateTable('recipients')
        .set({ [column]: engine.time.now })
        .where('mailing_id', '=', id)
        .where('person_id', '=', row.person_id),
    )
}

test('some get a variant each, the rest waits and gets the best, by itself when its time has come', async () => {
  const id = await begin(tried({ share: 0.5, hours: 4 }))
  const first = rows(id)
  expect(first.length).toBeGreaterThan(110)
  expect(first.length).toBeLessThan(190)
  expect(new Set(first.map(({ variant }) => variant))).toEqual(new Set([0, 1, 2]))
  // Nobody knows yet when its last message will have been accepted.
  expect(nextAdvance(db, engine.time.now)).toBeNull()
  deliver(id)
  expect(nextAdvance(db, engine.time.now)).toBe(engine.time.now + 4 * HOUR)
  mark(id, 'opened_at', ({ variant, person_id }) => variant === 1 || person_id % 5 === 0)
  await later(3 * HOUR)
  expect(rows(id)).toHaveLength(first.length)
  await later(HOUR)
  expect(mailingById(db, id)).toMatchObject({ winner: 1, decided_by: 'itself' })
  const now = testResults(db, mailingById(db, id)!, engine.time.now)!
  expect(now.decidedOn).toEqual({
    measure: 'open',
    variants: now.variants.map(({ variant, delivered: of, value, best, loss }) => ({
      variant,
      of,
      value,
      best,
      loss,
    })),
  })
  const whole = rows(id)
  expect(whole).toHaveLength(300)
  expect(whole.filter(({ part }) => part === 1).every(({ variant }) => variant === 1)).toBe(true)
  expect(deliver(id)).toBe(300 - first.length)
  expect(variantCounts(db, { id }, null).map(({ variant }) => variant)).toEqual([0, 1, 2])
  // What comes later changes what is shown, and not what it was decided on.
  mark(id, 'opened_at', ({ variant }) => variant === 0)
  const afterwards = testResults(db, mailingById(db, id)!, engine.time.now)!
  expect(afterwards.variants[0]!.value).toBe(1)
  expect(afterwards.decidedOn).toEqual(now.decidedOn)
  expect(nextAdvance(db, engine.time.now)).toBeNull()
})

test('without a clear winner the leader is taken, and it is said', async () => {
  const id = await begin(tried({ share: 0.4, hours: 1 }))
  deliver(id)
  mark(id, 'opened_at', ({ person_id }) => person_id % 4 === 0)
  await later(HOUR)
  expect(mailingById(db, id)!.decided_by).toBe('itself, without a clear winner')
  expect(rows(id)).toHaveLength(300)
})

test('by hand, the rest waits for as long as it takes', async () => {
  const id = await begin(tried({ share: 0.2, decides: 'hand' }))
  deliver(id)
  await later(30 * DAY)
  expect(partsOfMailing(db, id)[1]!.begun_at).toBeNull()
  expect(nextAdvance(db, engine.time.now)).toBeNull()
  expect(decideTest(db, mailingById(db, id)!, 2, 'Wren', engine.time.now)).toBe(true)
  expect(decideTest(db, mailingById(db, id)!, 0, 'Ash', engine.time.now)).toBe(false)
  await later(0)
  expect(
    rows(id)
      .filter(({ part }) => part === 1)
      .every(({ variant }) => variant === 2),
  ).toBe(true)
})

test('who is held out is never mailed, and what they do is compared', async () => {
  const goal = { is: 'order', what: '', days: 5 }
  const id = await begin(tried({ share: 0.5, hours: 1 }, { holdout: 0.2, goal }))
  deliver(id)
  await later(HOUR)
  deliver(id)
  const mailed = new Set(rows(id).map(({ person_id }) => person_id))
  const heldOut = all(db, q.selectFrom('holdouts').select('person_id').where('mailing_id', '=', id))
  expect(heldOut.length).toBeGreaterThan(30)
  expect(heldOut.length + mailed.size).toBe(300)
  for (const { person_id } of heldOut) expect(mailed.has(person_id)).toBe(false)
  const order = (person: number, at: number) =>
    run(
      db,
      q.insertInto('orders').values({ person_id: person, at, money: 4_000, number: `n${person}` }),
    )
  const [one, two, three] = [...mailed]
  order(one!, engine.time.now + DAY)
  order(two!, engine.time.now + 6 * DAY)
  order(three!, engine.time.now - DAY)
  order(heldOut[0]!.person_id, engine.time.now + DAY)
  expect(goalCounts(db, { id }, { is: 'order', what: '', days: 5 })).toEqual({
    mailed: { hits: 1, of: mailed.size },
    heldOut: { hits: 1, of: heldOut.length },
  })
})

/** Three tiers: the keen, the warm and the silent. */
function spread() {
  for (const [i, id] of people.entries()) {
    const tier = i % 3 === 0 ? 'keen' : i % 3 === 1 ? 'warm' : 'silent'
    const keenness = keennessOf(tier, engine.time.now + DAY)
    run(db, q.updateTable('facts').set({ keenness }).where('person_id', '=', id))
  }
}
const widening = { ...plainPlan, pace: 'widening' as const, watchMinutes: 90 }

test('the keenest go first, and each tier follows when the one before has been watched', async () => {
  spread()
  const id = await begin(widening)
  expect(rows(id).map(({ person_id }) => people.indexOf(person_id) % 3)).toEqual(
    new Array(100).fill(0),
  )
  await later(10 * HOUR)
  expect(rows(id)).toHaveLength(100) // not one has an answer yet
  deliver(id)
  expect(nextAdvance(db, engine.time.now)).toBe(engine.time.now + 90 * MINUTE)
  await later(89 * MINUTE)
  expect(rows(id)).toHaveLength(100)
  await later(MINUTE)
  expect(rows(id)).toHaveLength(200)
  deliver(id)
  await later(90 * MINUTE)
  expect(rows(id)).toHaveLength(300)
  deliver(id)
  expect(totalsOf(db, id)).toMatchObject({ accepted: 300, queued: 0 })
})

test('who is held out is counted from when they would have got it, as the mailed are', async () => {
  spread()
  const id = await begin({ ...widening, holdout: 0.3 })
  const began = engine.time.now
  const partOf = (i: number) =>
    partsOfMailing(db, id).find(({ kind }) => kind === `tier ${['keen', 'warm', 'silent'][i]}`)!.no
  for (let i = 0; i < 3; i++) {
    const { heldOut } = goalCounts(db, { id }, { is: 'order', what: '', days: 5 })
    const tier = all(
      db,
      q
        .selectFrom('holdouts')
        .select(['person_id', 'at', 'part'])
        .where('mailing_id', '=', id)
        .where('part', '=', partOf(i)),
    )
    expect(tier.length).toBeGreaterThan(10)
    for (const { person_id, at } of tier) {
      expect(at).toBe(began + i * 90 * MINUTE)
      expect(people.indexOf(person_id) % 3).toBe(i)
    }
    // Those of tiers to come are counted as little as the people they stand beside.
    const counted = q
      .selectFrom('holdouts')
      .select('person_id')
      .where('mailing_id', '=', id)
      .where('part', 'is not', null)
    expect(heldOut.of).toBe(all(db, counted).length)
    deliver(id)
    await later(90 * MINUTE)
  }
  const unbegun = q.selectFrom('holdouts').selectAll().where('part', 'is', null)
  expect(all(db, unbegun)).toEqual([])
})

test('a tier that passes a limit stops; who lets it go on has the same tier watched anew', async () => {
  spread()
  const id = await begin(widening)
  const claims = claimsOf(db, engine.id, id)
  const some = claimSome(claims, 60, engine.time.now)
  const answers = some.map(({ person_id }, i) => ({
    personId: person_id,
    round: 0,
    to: i < 20 ? ('failed' as const) : ('accepted' as const),
    answer: null,
  }))
  claims.settle(answers, engine.time.now)
  await later(0)
  const held = mailingById(db, id)!
  expect(held).toMatchObject({ state: 'held', held_by: 'line' })
  expect(held.held_note).toBe(
    'The warm tier waits: 20 of 60 bounced or were refused (33.3%), which is more than chance above the limit of 2.0%.',
  )
  watchAnew(db, id)
  engine.time.now += HOUR
  expect(goOnWithMailing(db, id, engine.time.now)).toBe(true)
  await later(10 * HOUR)
  // Forty of the keen have not been tried yet: no other tier follows before they were, and were watched.
  expect(rows(id)).toHaveLength(100)
  deliver(id)
  await later(89 * MINUTE)
  expect(rows(id)).toHaveLength(100)
  await later(MINUTE)
  expect(rows(id)).toHaveLength(200)
})

test('a few bad ones among the first stop nothing; a limit can be set', async () => {
  spread()
  const id = await begin(widening)
  const claims = claimsOf(db, engine.id, id)
  const answer = (many: number, to: 'accepted' | 'failed') =>
    claims.settle(
      claimSome(claims, many, engine.time.now).map(({ person_id }) => ({
        personId: person_id,
        round: 0,
        to,
        answer: null,
      })),
      engine.time.now,
    )
  answer(2, 'failed')
  answer(57, 'accepted')
  await later(0)
  expect(mailingById(db, id)!.state).toBe('sending')
  answer(5, 'failed')
  await later(0)
  expect(mailingById(db, id)!.state).toBe('sending')
  // The same counts are evidence against a quarter of the limit.
  const strict = { ...widening, limits: { ...widening.limits, bounced: 0.005 } }
  updateMailing(db, id, { plan: JSON.stringify(strict) })
  await later(0)
  expect(mailingById(db, id)!.state).toBe('held')
})

test('a test is decided so long after its last message was accepted; while it stands still no time goes by', async () => {
  const id = await begin(tried({ share: 0.5, hours: 4 }))
  await later(19 * HOUR)
  expect(mailingById(db, id)!.winner).toBeNull()
  const half = claimSome(claimsOf(db, engine.id, id), 70, engine.time.now)
  claimsOf(db, engine.id, id).settle(
    half.map(({ person_id }) => ({
      personId: person_id,
      round: 0,
      to: 'accepted' as const,
      answer: null,
    })),
    engine.time.now,
  )
  await later(10 * HOUR)
  expect(mailingById(db, id)!.winner).toBeNull()
  deliver(id)
  await later(HOUR)
  holdMailing(db, id, { held_by: 'hand', held_note: null }, engine.time.now)
  engine.time.now += 20 * HOUR
  goOnWithMailing(db, id, engine.time.now)
  await later(2 * HOUR + 59 * MINUTE)
  expect(mailingById(db, id)!.winner).toBeNull()
  await later(MINUTE)
  expect(mailingById(db, id)!.winner).not.toBeNull()
})

test('a test on everybody keeps the time on each reader’s own clock', async () => {
  run(
    db,
    q
      .updateTable('people')
      .set({ fields: JSON.stringify({ zone: 'Asia/Tokyo' }) })
      .where('id', 'in', people.slice(0, 150)),
  )
  addField(db, { key: 'zone', name: 'Time zone', kind: 'text' })
  const localAt = '2026-11-25T09:00'
  const plan = { ...tried({ share: 1 }), pace: 'local-time' as const, zoneField: 'zone', localAt }
  const id = await begin(plan)
  const dues = new Set(rows(id).map(({ due }) => new Date(due).toISOString()))
  expect(dues).toEqual(new Set(['2026-11-25T00:00:00.000Z', '2026-11-25T09:00:00.000Z']))
})

test('each is due at the hour at which they read most', async () => {
  const past = createMailing(db, { name: 'Past', listId: list, letter: finishedLetter() }, 0)
  const at = (hour: number) => Date.UTC(2026, 10, 20, hour, 20)
  people.forEach((person_id, i) =>
    run(
      db,
      q.insertInto('recipients').values({
        ...{ mailing_id: past, person_id, state: 'accepted', at: 1, due: 1, accepted_at: 1 },
        opened_at: at(i < 250 ? 18 : 7),
      }),
    ),
  )
  const id = await begin({ ...plainPlan, pace: 'best-hour' })
  const due = (i: number) => new Date(rows(id)[i]!.due).toISOString()
  expect(due(0)).toBe('2026-11-23T18:00:00.000Z')
  // One open in the morning among evenings: half an evening reader still, since everybody is.
  expect(due(260)).toBe('2026-11-23T18:00:00.000Z')
  expect(deliver(id)).toBe(0)
  engine.time.now = Date.UTC(2026, 10, 23, 18)
  expect(deliver(id)).toBe(300)
})

test('variants by the hour are due at theirs', async () => {
  const variants = [{ hour: 8 }, { hour: 20 }]
  const id = await begin(readPlan({ test: { of: 'hour', variants, share: 1 } }))
  for (const { variant, due } of rows(id))
    expect(new Date(due).getUTCHours()).toBe(variant === 0 ? 8 : 20)
})

test('whatever the plan, everybody is mailed once or held out, and the totals equal the rows', async () => {
  const plans = fc.record({
    pace: fc.constantFrom('at-once', 'best-hour', 'widening'),
    holdout: fc.constantFrom(0, 0.1, 0.5),
    test: fc.option(
      fc.record({
        of: fc.constant('subject'),
        variants: fc.constantFrom(subjects(['', 'B']), subjects(['', 'B', 'C', 'D', 'E'])),
        share: fc.constantFrom(0.1, 0.5, 1),
        hours: fc.constantFrom(1, 24),
        measure: fc.constantFrom('open', 'click', 'money'),
      }),
    ),
  })
  await fc.assert(
    fc.asyncProperty(plans, fc.boolean(), async (plan, crash) => {
      const id = await begin(readPlan(plan))
      for (let i = 0; i < 12; i++) {
        deliver(id)
        await later(6 * HOUR)
        if (crash) {
          const again = madeUpEngine(db, engine.settings)
          again.time.now = engine.time.now
          await advanceMailings(again)
        }
      }
      expect(deliver(id)).toBe(0)
      const double = sql<{ n: number }>`
        select count(*) as n from (
          select person_id from recipients where mailing_id = ${id} and state = 'accepted'
          union all select person_id from holdouts where mailing_id = ${id})`
      expect(all(db, raw(double))[0]!.n).toBe(300)
      const recount = recountTotals(db, id)
      for (const [state, n] of Object.entries(recount))
        expect(totalsOf(db, id)![state as 'accepted']).toBe(n)
    }),
    { numRuns: 12 },
  )
})
