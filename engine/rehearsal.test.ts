import { expect, test } from 'vitest'
import { addressed } from '../core/delivery'
import { linkIn, walk, type Life } from '../core/rehearsal'
import { emptyMap, insertStep, joinAt, type SequenceMap } from '../core/sequences'
import { afterQuiet, DAY, HOUR, hourOf } from '../core/time'
import { all, q, run } from '../database'
import { readAccount } from '../database/account'
import { madeUpAccount, somebody } from '../database/made-up'
import { mailingById } from '../database/mailings'
import { actRecorder } from '../database/sending'
import {
  addMailOf,
  addSequence,
  changeSequence,
  drawAudience,
  sequenceById,
  startSequence,
  trafficOf,
} from '../database/sequences'
import { finishedLetter } from '../tests/subscribers'
import { judgeActs } from './judge-acts'
import { madeUpEngine } from './made-up'
import { runSequences } from './run-sequences'

const { db, list } = madeUpAccount()
const zone = readAccount(db)!.zone
let letters: number[]
const engine = madeUpEngine(db)

/** What each does that is to be followed, and how long after coming in, in hours. */
const plans = [
  {},
  { click: 5 },
  { order: 30 },
  { click: 100, order: 120 },
  { event: 71 },
  { click: 71.5, event: 200 },
  { event: 90, order: 400 },
  { click: 4, event: 5, order: 6 },
]
type Plan = { click?: number; order?: number; event?: number }

function mapOf(first: number, second: number): SequenceMap {
  const start = {
    by: [{ is: 'joined' as const, signUpId: null }],
    again: { is: 'never' as const },
    rule: null,
  }
  let map = insertStep({ ...emptyMap, start }, null, 'hello', { kind: 'mail', mailingId: first })
  map = insertStep(map, 'hello', 'wait', {
    ...{ kind: 'wait', ms: 3 * DAY, ways: [{ next: null }] },
    until: { is: 'happens', what: { is: 'clicked', mail: 'hello' } },
    hours: { days: [1, 2, 3, 4, 5], from: 8 * 60, to: 18 * 60 },
  })
  map = insertStep(map, 'wait', 'pause', { kind: 'wait', ms: 2 * DAY })
  map = joinAt(map, 'wait', 1, 'pause')
  map = insertStep(map, 'pause', 'fork', {
    kind: 'fork',
    ways: [{ when: { is: 'did', event: 'booked' }, next: null }],
  })
  map = insertStep(map, { step: 'fork', way: 1 }, 'again', {
    ...{ kind: 'mail', mailingId: second, full: { waitDays: 4 } },
  })
  // Who booked before comes by their mail twice, and gets it once.
  const back = { to: 'fork', times: 1 }
  map = insertStep(map, 'fork', 'rest', { kind: 'wait', ms: 10 * DAY, back })
  return insertStep(map, 'rest', 'bought', {
    ...{ kind: 'goal', name: '', when: { is: 'ordered' }, out: true },
  })
}

test('what is rehearsed of a behaviour that is fixed is what the engine does, step by step', async () => {
  const url = 'https://galewright.example/forecast'
  // At a full hour, at which quiet hours end, too.
  const began = (engine.time.now = Math.ceil(engine.time.now / HOUR) * HOUR)
  // Nobody gets the first at once, nor the second sooner than five days after it.
  const [quiet, cap] = [{ from: hourOf(began, zone), to: (hourOf(began, zone) + 3) % 24 }, 5]
  run(
    db,
    q.updateTable('account').set({
      ...{ quiet_from: quiet.from, quiet_to: quiet.to },
      ...{ cap_mailings: 1, cap_days: cap },
    }),
  )
  run(db, q.insertInto('link_checks').values({ url, asked_at: 1, checked_at: began, status: 200 }))
  const id = addSequence(db, 'Followed', list, 0)
  const [first, second] = ['one', 'two'].map((name) => {
    const mailing = addMailOf(db, sequenceById(db, id)!, name, 0)
    const { subject, document } = finishedLetter()
    run(
      db,
      q
        .updateTable('letters')
        .set({ subject, document: JSON.stringify(document) })
        .where('id', '=', mailingById(db, mailing)!.letter_id),
    )
    return mailing
  })
  letters = [first!, second!]
  const map = mapOf(first!, second!)
  changeSequence(db, sequenceById(db, id)!, { name: 'Followed', listId: list, map }, 1)
  expect(startSequence(db, sequenceById(db, id)!, began)).toBe(true)
  const people = plans.map((_, n) => somebody(db, `p${n}`, { list, now: began }))
  const until = began + 30 * DAY

  // In the engine: the clock goes on by half an hour, and whoever is to do something then does it.
  for (let at = began; at <= until; at += HOUR / 2) {
    engine.time.now = at
    for (const [n, plan] of plans.entries() as Iterable<[number, Plan]>) {
      const person_id = people[n]!
      const isNow = (hours?: number, before = 0) =>
        hours !== undefined && began + hours * HOUR - before === at
      if (isNow(plan.order))
        run(db, q.insertInto('orders').values({ person_id, number: `N${n}`, at, money: 100 }))
      if (isNow(plan.event))
        run(db, q.insertInto('events').values({ person_id, name: 'booked', at, props: '{}' }))
      // A click counts when it is judged to be somebody's; that is at the next look.
      if (isNow(plan.click, HOUR / 2)) {
        const act = { kind: 'click' as const, link: 0, agent: 'SailMail/4.2', method: 'GET' }
        actRecorder(db)([{ ...addressed(first!, person_id), ...act, at }])
      }
    }
    while (judgeActs(engine));
    while (await runSequences(engine));
    const queued = q.updateTable('recipients').where('state', '=', 'queued')
    run(db, queued.set({ state: 'accepted', accepted_at: at }))
  }

  const traffic: Record<string, number[]> = {}
  const mails: { mailing: number; person: number; at: number }[] = []
  const ends = people.map((person, n) => {
    const walked = walk(
      map,
      {
        ...{ zone, quiet, cap: { mailings: 1, days: cap } },
        fieldOf: () => null,
        bestHour: () => 0,
        lot: () => 0,
        life: lifeOf(plans[n]!),
      },
      began,
      until,
      {
        passed(step, way) {
          const ways = (traffic[step] ??= [])
          for (let one = 0; one <= way; one++) ways[one] ??= 0
          ways[way]!++
        },
        mailed: (_step, mailing, at) => mails.push({ mailing, person, at }),
      },
    )
    return walked.ended ? { ...walked.ended, at: walked.at } : { inside: walked.inside }
  })
  expect(trafficOf(db, id)).toEqual(traffic)
  const came = all(
    db,
    q.selectFrom('enrolments').select(['state', 'why', 'ended_at']).orderBy('person_id'),
  )
  expect(came).toEqual(
    ends.map((end) =>
      'state' in end
        ? { state: end.state, why: end.why, ended_at: end.at }
        : { state: 'inside', why: null, ended_at: null },
    ),
  )
  const queued = all(
    db,
    q
      .selectFrom('recipients')
      .select(['mailing_id as mailing', 'person_id as person', 'due as at']),
  )
  const inOrder = (rows: typeof mails) =>
    rows.toSorted((a, b) => a.person - b.person || a.mailing - b.mailing)
  expect(inOrder(queued)).toEqual(inOrder(mails))
  expect(mails.length).toBeGreaterThan(plans.length)
  const [hello, again] = letters.map((id) => mails.filter(({ mailing }) => mailing === id))
  expect(new Set(hello!.map(({ at }) => at))).toEqual(new Set([afterQuiet(began, quiet, zone)]))
  // Who booked early came to it before there was room; who did so later, when they were sent back.
  const after = again!.map(({ at }) => (at - hello![0]!.at) / DAY).sort((a, b) => a - b)
  expect(after.slice(0, 2)).toEqual([cap, cap])
  expect(after).toHaveLength(3)
  expect(after[2]).toBeGreaterThan(14)
  expect(traffic.rest![1]).toBeGreaterThan(0)

  function lifeOf({ click, order, event }: Plan): Life {
    const time = (hours?: number) => (hours === undefined ? Infinity : began + hours * HOUR)
    const [clicked, ordered, booked] = [time(click), time(order), time(event)]
    return {
      when: (what) => ({ clicked, opened: clicked, ordered, did: booked, fits: Infinity })[what.is],
      next: (after) => Math.min(Infinity, ...[clicked, ordered, booked].filter((at) => at > after)),
      leaves: () => Infinity,
      got() {},
    }
  }
})

test('the audience is who could come in, with what they did and whether they fit what the map asks', () => {
  const id = addSequence(db, 'Asks', list, 0)
  const rule = { kind: 'all' as const, of: [] }
  const start = { ...emptyMap.start, rule: null }
  const map = insertStep({ ...emptyMap, start }, null, 'fork', {
    kind: 'fork',
    ways: [{ when: { is: 'fits', rule }, next: null }],
  })
  const stranger = somebody(db, 'stranger', { now: engine.time.now })
  const audience = drawAudience(db, { sequenceId: id, listId: list, maps: [map] }, engine.time.now)
  expect(audience.isAll).toBe(true)
  expect(audience.people).toHaveLength(plans.length)
  expect(audience.people.map((one) => one.id)).not.toContain(stranger)
  expect(audience.people.reduce((sum, one) => sum + one.orders, 0)).toBe(4)
  expect(audience.fits[JSON.stringify(rule)]).toEqual(audience.people.map(() => true))
  // Of the four who clicked in the first mail all clicked on its one link; nobody clicked in the second, which has one link.
  const url = 'https://galewright.example/forecast'
  const asked = insertStep(mapOf(letters[0]!, letters[1]!), 'pause', 'which', {
    kind: 'fork',
    ways: [
      { when: { is: 'clicked', mail: null, link: url }, next: null },
      { when: { is: 'clicked', mail: 'hello', link: `${url}/old` }, next: null },
    ],
  })
  const links = (map: SequenceMap) =>
    drawAudience(db, { sequenceId: id, listId: list, maps: [map] }, engine.time.now).customs.links
  expect(links(asked)).toEqual({
    ...{ [linkIn('hello', url)]: 1, [linkIn('again', url)]: 1 },
    ...{ [linkIn('hello', `${url}/old`)]: 0, [linkIn('again', `${url}/old`)]: 0 },
  })
  expect(links(map)).toEqual({})
  const one = drawAudience(
    db,
    { sequenceId: id, listId: list, maps: [map], personId: stranger },
    engine.time.now,
  )
  expect(one.people).toMatchObject([{ id: stranger, sent: 0, tier: 'silent' }])
})
