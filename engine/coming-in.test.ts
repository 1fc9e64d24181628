import { beforeEach, expect, test } from 'vitest'
import { addressed } from '../core/delivery'
import { newBlock, type Block } from '../core/letters'
import { rowOf } from '../core/letters/document'
import {
  alreadyThere,
  emptyMap,
  insertStep,
  type Again,
  type NewStep,
  type SequenceMap,
  type Starting,
} from '../core/sequences'
import { DAY, HOUR } from '../core/time'
import { all, q, run, transact, type Database } from '../database'
import { finishedLetter } from '../tests/subscribers'
import { madeUpAccount, somebody } from '../database/made-up'
import { takeProduct } from '../database/imports'
import { pickerFor } from '../database/letters'
import { createMailing, mailingById, readerValuesFor } from '../database/mailings'
import {
  changePerson,
  changeSubscription,
  deleteTag,
  erasePerson,
  everythingKnown,
  hushed,
  joinTags,
  mergePeople,
  roundKey,
  tagNamed,
  tagPeople,
} from '../database/people'
import { addSegment, segmentById } from '../database/segments'
import { actRecorder, addRecipient, readRecipient } from '../database/sending'
import {
  addMailOf,
  addSequence,
  arrivalsOf,
  changeSequence,
  comingBy,
  couldComeIn,
  endSequence,
  enrolPerson,
  happeningsAt,
  letPeopleIn,
  letPeopleOut,
  letSegmentIn,
  nextStartDue,
  pauseSequence,
  readSequences,
  sequenceById,
  standingAt,
  startSequence,
  takeOut,
  trafficOf,
} from '../database/sequences'
import { followSegments } from './follow-segments'
import { judgeActs } from './judge-acts'
import { madeUpEngine } from './made-up'
import { runSequences } from './run-sequences'

let db: Database
let list: number
let engine: ReturnType<typeof madeUpEngine>
beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  engine = madeUpEngine(db)
  const at = engine.time.now
  const url = 'https://galewright.example/forecast'
  run(db, q.insertInto('link_checks').values({ url, asked_at: at, checked_at: at, status: 200 }))
})

const waits: NewStep = { kind: 'wait', ms: 2 * DAY }
/** A running sequence that begins so, of one step. */
function running(by: Starting[], again: Again = { is: 'never' }, step: NewStep = waits): number {
  const id = addSequence(db, 'Comes in', list, 0)
  const map = { ...emptyMap, start: { by, again, rule: null } }
  const sequence = sequenceById(db, id)!
  changeSequence(
    db,
    sequence,
    { name: 'Comes in', listId: list, map: insertStep(map, null, 'only', step) },
    sequence.revision,
  )
  expect(startSequence(db, sequenceById(db, id)!, engine.time.now)).toBe(true)
  return id
}
const join = (name: string, values = {}) =>
  somebody(db, name, { list, now: engine.time.now, values })
const happens = (person_id: number, name = 'basket', at = engine.time.now) =>
  run(db, q.insertInto('events').values({ person_id, name, at, props: '{}' })).id
let orders = 0
const order = (person_id: number, at = engine.time.now) =>
  run(db, q.insertInto('orders').values({ person_id, number: `N${orders++}`, at, money: 1_000 })).id
async function settle() {
  while (await runSequences(engine));
}
async function after(ms: number) {
  engine.time.now += ms
  await settle()
}
const rounds = (person: number) =>
  all(
    db,
    q
      .selectFrom('enrolments')
      .select(['round', 'state', 'start', 'started_by'])
      .where('person_id', '=', person)
      .orderBy('round'),
  )
const states = (person: number) => rounds(person).map(({ state }) => state)

test('never again: whatever they do, it is their first round alone', async () => {
  running([{ is: 'event', name: 'basket' }])
  const tove = join('tove')
  happens(tove)
  await settle()
  await after(3 * DAY)
  happens(tove)
  await settle()
  expect(states(tove)).toEqual(['finished'])
})

test('each time: every event is a round of its own, also while they are inside', async () => {
  const id = running([{ is: 'event', name: 'basket' }], { is: 'each' })
  const tove = join('tove')
  const first = happens(tove)
  await settle()
  await after(HOUR)
  const second = happens(tove)
  await settle()
  expect(rounds(tove)).toEqual([
    { round: 0, state: 'inside', start: 0, started_by: first },
    { round: 1, state: 'inside', start: 0, started_by: second },
  ])
  expect(standingAt(db, id)).toEqual({ only: 2 })
  await after(2 * DAY - HOUR)
  expect(states(tove)).toEqual(['finished', 'inside'])
  await after(HOUR)
  expect(readSequences(db)).toMatchObject([{ inside: 0, finished: 2, left: 0 }])
})

test('after finishing: not while inside, and not who left on the way', async () => {
  running([{ is: 'event', name: 'basket' }], { is: 'finished' })
  const [tove, mina] = [join('tove'), join('mina')]
  for (const one of [tove, mina]) happens(one)
  await after(HOUR)
  happens(tove)
  changeSubscription(db, mina, list, 'unsubscribed', { act: 'person', way: 'form' }, 1)
  await after(2 * DAY)
  const back = { act: 'person', way: 'form', wording: 'I want it.' } as const
  changeSubscription(db, mina, list, 'subscribed', back, 2)
  for (const one of [tove, mina]) happens(one)
  await settle()
  expect([states(tove), states(mina)]).toEqual([['finished', 'inside'], ['left']])
})

test('after so many days, counted from when they came in', async () => {
  running([{ is: 'event', name: 'basket' }], { is: 'days', days: 30 })
  const tove = join('tove')
  for (const wait of [0, 29 * DAY, DAY]) {
    engine.time.now += wait
    happens(tove)
    await settle()
  }
  expect(states(tove)).toEqual(['finished', 'inside'])
})

test('each round has its mail, with tokens, opens and a state of its own', async () => {
  const id = addSequence(db, 'Basket', list, 0)
  const mailing = addMailOf(db, sequenceById(db, id)!, 'Your basket', 0)
  const { subject, document } = finishedLetter()
  run(
    db,
    q
      .updateTable('letters')
      .set({ subject, document: JSON.stringify(document) })
      .where('id', '=', mailingById(db, mailing)!.letter_id),
  )
  const start = {
    by: [{ is: 'event' as const, name: 'basket' }],
    again: { is: 'each' as const },
    rule: null,
  }
  const map = insertStep({ ...emptyMap, start }, null, 'hello', {
    kind: 'mail',
    mailingId: mailing,
  })
  changeSequence(db, sequenceById(db, id)!, { name: 'Basket', listId: list, map }, 1)
  startSequence(db, sequenceById(db, id)!, engine.time.now)
  const tove = join('tove')
  for (const _ of [1, 2]) {
    happens(tove)
    await after(HOUR)
  }
  const of = (round: number) => readRecipient(db, addressed(mailing, tove, round))
  expect([of(0)?.state, of(1)?.state, of(2)]).toEqual(['queued', 'queued', undefined])
  const act = { kind: 'open' as const, link: null, agent: 'SailMail/4.2', method: 'GET' }
  actRecorder(db)([{ ...addressed(mailing, tove, 1), ...act, at: engine.time.now }])
  engine.time.now += HOUR
  while (judgeActs(engine));
  expect([of(0)!.opened_at, of(1)!.opened_at]).toEqual([null, engine.time.now - HOUR])
})

test('each round’s mail is about the basket by which it began, in words and in products', async () => {
  for (const [key, price] of Object.entries({ gull: 1_000, delta: 2_000 }))
    takeProduct(
      db,
      {
        ...{ key, name: key.toUpperCase(), category: '', price, stock: 4 },
        ...{ url: `https://kites.example/${key}`, picture: '/p/kite' },
      },
      0,
    )
  const fills = (product: string, sum: number) => ({
    name: 'basket',
    props: JSON.stringify({ product, sum }),
  })
  const id = running([{ is: 'event', name: 'basket' }], { is: 'each' })
  const tove = join('tove')
  for (const event of [fills('gull', 10), fills('delta', 20)]) {
    run(db, q.insertInto('events').values({ person_id: tove, at: engine.time.now, ...event }))
    await after(HOUR)
  }
  // The same round numbers of another sequence, and a start by orders, are told apart from it.
  const byOrder = running([{ is: 'ordered', first: false }], { is: 'each' })
  order(tove)
  await settle()

  const letter = { ...finishedLetter(), subject: 'For {{ event.basket.sum }} or so' }
  const both = [0, 1].map((round) => ({ person_id: tove, round }))
  const sums = (sequence: number | null) => {
    const values = readerValuesFor(db, letter, list, sequence)!(both)
    return both.map((round) => (values.get(roundKey(round))!.event!.basket as { sum: number }).sum)
  }
  expect(sums(id)).toEqual([10, 20])
  expect(sums(byOrder)).toEqual([20, 20])
  expect(sums(null)).toEqual([20, 20])

  const block = { ...newBlock('picks', 'kites'), by: 'began', many: 1 } as Block
  const document = { ...letter.document, rows: [rowOf(block)] }
  const picked = pickerFor(db, document, '', engine.time.now, id)!.pickFor(both)
  expect(both.map((round) => picked.get(roundKey(round))!['kites 0']!.name)).toEqual([
    'GULL',
    'DELTA',
  ])
})

test('an order lets in; where the first is asked for, only that one', async () => {
  running([{ is: 'ordered', first: true }])
  const [tove, mina] = [join('tove'), join('mina')]
  order(mina, engine.time.now - 40 * DAY)
  await settle()
  for (const one of [tove, mina]) order(one)
  await settle()
  expect([states(tove), states(mina)]).toEqual([['inside'], []])
})

test('orders of long ago that come in by a file let nobody in', async () => {
  running([{ is: 'ordered', first: false }])
  const tove = join('tove')
  order(tove, engine.time.now - 40 * DAY)
  await settle()
  expect(states(tove)).toEqual([])
})

test('what is left behind: an event that no order followed in time, and the last of several', async () => {
  const by: Starting = { is: 'left behind', name: 'basket', unless: null, within: 4 * HOUR }
  running([by], { is: 'each' })
  const [left, bought, twice] = [join('left'), join('bought'), join('twice')]
  for (const one of [left, bought, twice]) happens(one)
  await after(HOUR)
  expect(nextStartDue(db)).toBe(engine.time.now + 3 * HOUR)
  order(bought)
  const later = happens(twice)
  await after(3 * HOUR)
  expect([states(left), states(bought), states(twice)]).toEqual([['inside'], [], []])
  await after(HOUR)
  expect(rounds(twice)).toMatchObject([{ round: 0, started_by: later }])
  expect(nextStartDue(db)).toBeNull()
})

test('what is left behind is found whatever else happens before its time is over', async () => {
  running([{ is: 'left behind', name: 'basket', unless: 'paid', within: 4 * HOUR }])
  const [tove, mina] = [join('tove'), join('mina')]
  happens(tove)
  happens(mina)
  await after(HOUR)
  for (let n = 0; n < 5; n++) happens(tove, 'page view')
  happens(mina, 'paid')
  await after(3 * HOUR)
  expect([states(tove), states(mina)]).toEqual([['inside'], []])
})

const birthday = { is: 'date', of: 'birthday', days: 0, yearly: true, hour: 9 } as const
test('a birthday lets in at its hour, two years running, and one of today that is learned later waits a year', async () => {
  run(
    db,
    q.insertInto('fields').values({ key: 'birthday', name: 'Birthday', kind: 'date', position: 0 }),
  )
  running([birthday], { is: 'days', days: 300 })
  const tove = join('tove', { birthday: '1988-11-24' })
  const late = join('late', { birthday: '1990-11-23' })
  await settle()
  expect(nextStartDue(db)).toBe(Date.UTC(2026, 10, 24, 9))
  await after(23 * HOUR)
  expect(states(tove)).toEqual([])
  await after(HOUR)
  expect(states(tove)).toEqual(['inside'])
  await after(364 * DAY)
  expect([states(tove), states(late)]).toEqual([['finished'], ['inside']])
  await after(DAY)
  expect([states(tove), states(late)]).toEqual([['finished', 'inside'], ['inside']])
})

test('29 February counts on the 28th in other years; days before are days of the calendar', async () => {
  run(
    db,
    q.insertInto('fields').values({ key: 'birthday', name: 'Birthday', kind: 'date', position: 0 }),
  )
  engine.time.now = Date.UTC(2027, 1, 20, 12)
  running([{ ...birthday, days: -3 }], { is: 'each' })
  const leap = join('leap', { birthday: '1988-02-29' })
  const inMarch = join('march', { birthday: '1988-03-01' })
  await after(5 * DAY)
  expect([states(leap), states(inMarch)]).toEqual([['inside'], []])
  await after(DAY)
  expect([states(leap).length, states(inMarch).length]).toEqual([1, 1])
})

test('a day’s dates are found by an index, which is there as long as a running sequence asks for them', () => {
  run(
    db,
    q.insertInto('fields').values({ key: 'birthday', name: 'Birthday', kind: 'date', position: 0 }),
  )
  const indexes = () =>
    db.sqlite
      .prepare("select name from sqlite_master where name glob 'people_dates_*'")
      .pluck()
      .all()
  expect(indexes()).toEqual([])
  const [one, other] = [running([birthday]), running([birthday])]
  expect(indexes()).toEqual(['people_dates_birthday'])
  engine.time.now += DAY
  const from = { upto: engine.time.now - DAY, now: engine.time.now, zone: 'UTC' }
  comingBy(db, sequenceById(db, one)!, birthday, from)
  const asked = [...db.statements.keys()].find((text) =>
    /from people as p where.*birthday/.test(text),
  )!
  const values = Array.from({ length: asked.split('?').length - 1 }, () => '')
  const steps = db.sqlite.prepare(`explain query plan ${asked}`).all(...values)
  expect(JSON.stringify(steps)).toContain('people_dates_birthday')
  endSequence(db, one, engine.time.now)
  expect(indexes()).toEqual(['people_dates_birthday'])
  endSequence(db, other, engine.time.now)
  expect(indexes()).toEqual([])
})

test('a date that comes once, and the day on which they joined', async () => {
  run(
    db,
    q.insertInto('fields').values({ key: 'course', name: 'Course', kind: 'date', position: 0 }),
  )
  const once = running([{ is: 'date', of: 'course', days: -1, yearly: false, hour: 9 }])
  const joined = running([{ is: 'date', of: 'joined_at', days: 0, yearly: true, hour: 9 }])
  const tove = join('tove', { course: '2026-11-26' })
  await after(2 * DAY)
  expect(standingAt(db, once)).toEqual({ only: 1 })
  await after(362 * DAY)
  expect(standingAt(db, joined)).toEqual({})
  await after(DAY)
  expect(standingAt(db, joined)).toEqual({ only: 1 })
  expect(rounds(tove)).toHaveLength(2)
})

test('what falls into a pause lets nobody in', async () => {
  run(
    db,
    q.insertInto('fields').values({ key: 'birthday', name: 'Birthday', kind: 'date', position: 0 }),
  )
  const id = running([birthday])
  const tove = join('tove', { birthday: '1988-11-24' })
  pauseSequence(db, id, engine.time.now)
  await after(2 * DAY)
  startSequence(db, sequenceById(db, id)!, engine.time.now)
  await settle()
  expect(states(tove)).toEqual([])
})

const tag = (person: number, name: string, on = true) =>
  tagPeople(db, [person], tagNamed(db, name), on)
const cuesKept = () => all(db, q.selectFrom('cues').select('id')).length

test('a tag that is given or taken away lets in; what nobody waits for is not noted', async () => {
  const gets = running([{ is: 'tag', tagId: tagNamed(db, 'owner'), gets: true }])
  const loses = running([{ is: 'tag', tagId: tagNamed(db, 'trial'), gets: false }])
  const [tove, mina] = [join('tove'), join('mina')]
  tag(tove, 'owner')
  tag(tove, 'trial')
  tag(mina, 'trial')
  tag(mina, 'trial', false)
  tag(mina, 'pilot')
  expect(cuesKept()).toBe(2)
  await settle()
  expect([standingAt(db, gets), standingAt(db, loses)]).toEqual([{ only: 1 }, { only: 1 }])
  expect(rounds(tove)).toMatchObject([{ start: 0 }])
  // What all have read is forgotten, and the next is still told from it.
  expect(cuesKept()).toBe(0)
  tag(mina, 'owner')
  await settle()
  expect(standingAt(db, gets)).toEqual({ only: 2 })
})

test('a tag that is joined to another or deleted lets nobody in, and a start goes with its tag', async () => {
  const [trial, trialled, owner] = ['trial', 'trialled', 'owner'].map((name) => tagNamed(db, name))
  const loses = running([{ is: 'tag', tagId: trial!, gets: false }], { is: 'each' })
  const gets = running([{ is: 'tag', tagId: owner!, gets: true }])
  const [tove, mina] = [join('tove'), join('mina')]
  tag(tove, 'trial')
  tag(mina, 'trialled')
  joinTags(db, trial!, trialled!)
  joinTags(db, trialled!, owner!)
  await settle()
  expect([standingAt(db, loses), standingAt(db, gets)]).toEqual([{}, {}])
  expect(sequenceById(db, loses)!.map.start.by).toEqual([{ is: 'tag', tagId: owner, gets: false }])
  tag(tove, 'owner', false)
  await settle()
  expect(standingAt(db, loses)).toEqual({ only: 1 })
  deleteTag(db, owner!)
  await settle()
  expect(standingAt(db, loses)).toEqual({ only: 1 })
})

test('who is erased while a tag of theirs is waited for is gone, and nothing is noted', async () => {
  running([{ is: 'tag', tagId: tagNamed(db, 'trial'), gets: false }])
  const tove = join('tove')
  tag(tove, 'trial')
  erasePerson(db, tove, engine.time.now)
  expect(cuesKept()).toBe(0)
})

test('a field that changes lets in, whatever to or to one value alone; also of somebody new', async () => {
  const field = { position: 0, kind: 'text' as const }
  run(db, q.insertInto('fields').values({ key: 'town', name: 'Town', ...field }))
  run(db, q.insertInto('fields').values({ key: 'level', name: 'Level', ...field, kind: 'choices' }))
  run(
    db,
    q.insertInto('fields').values({ key: 'boards', name: 'Boards', ...field, kind: 'number' }),
  )
  const any = running([{ is: 'field', field: 'town', to: null }])
  const orrin = running([{ is: 'field', field: 'town', to: ' orrin ' }])
  const course = running([{ is: 'field', field: 'level', to: 'Course' }])
  const two = running([{ is: 'field', field: 'boards', to: '2' }])
  const [tove, mina] = [join('tove'), join('mina', { town: 'Sandreach' })]
  await settle()
  const change = (person: number, values: Record<string, unknown>) =>
    changePerson(db, person, { values: values as never }, engine.time.now)
  change(tove, { town: 'Orrin', boards: 2, level: ['Course', 'Wave'] })
  change(mina, { boards: 3 })
  await settle()
  expect([any, orrin, course, two].map((id) => standingAt(db, id))).toEqual([
    // Mina came with a town; Tove got one.
    { only: 2 },
    { only: 1 },
    { only: 1 },
    { only: 1 },
  ])
})

test('nobody comes in by what a file or joining two records changed', async () => {
  running([{ is: 'tag', tagId: tagNamed(db, 'owner'), gets: true }], { is: 'each' })
  const [tove, mina] = [join('tove'), join('mina')]
  hushed(db, () => tag(tove, 'owner'))
  expect(cuesKept()).toBe(0)
  mergePeople(db, mina, tove, engine.time.now)
  await settle()
  expect(states(mina)).toEqual([])
  // The hush ends with its work, also where that fails.
  expect(() =>
    hushed(db, () => {
      throw new Error('in the middle')
    }),
  ).toThrow('in the middle')
  tag(mina, 'owner', false)
  tag(mina, 'owner')
  await settle()
  expect(states(mina)).toEqual(['inside'])
})

/** A mailing that went to somebody. */
function wasSent(mailing: number, person: number, at = engine.time.now) {
  transact(db, () => addRecipient(db, addressed(mailing, person), at))
  const accepted = { state: 'accepted' as const, accepted_at: at }
  run(db, recipientsOf(mailing, person).set(accepted))
}
const recipientsOf = (mailing: number, person: number) =>
  q.updateTable('recipients').where('mailing_id', '=', mailing).where('person_id', '=', person)

test('what somebody does with a mailing lets in: sent, opened, clicked', async () => {
  const mailing = createMailing(db, { name: 'Autumn', listId: list, letter: finishedLetter() }, 0)
  const by = (did: 'sent' | 'opened' | 'clicked') =>
    running([{ is: 'mailed', mailingId: mailing, did, within: DAY }])
  const [sent, opened, clicked] = [by('sent'), by('opened'), by('clicked')]
  const [tove, mina] = [join('tove'), join('mina')]
  for (const one of [tove, mina]) wasSent(mailing, one)
  run(db, recipientsOf(mailing, tove).set({ opened_at: engine.time.now }))
  await settle()
  expect([sent, opened, clicked].map((id) => standingAt(db, id))).toEqual([
    ...[{ only: 2 }, { only: 1 }, {}],
  ])
  run(db, recipientsOf(mailing, tove).set({ clicked_at: engine.time.now }))
  await settle()
  expect(standingAt(db, clicked)).toEqual({ only: 1 })
})

test('who does not open a mailing in time comes in, those also who were sent it just before', async () => {
  const mailing = createMailing(db, { name: 'Autumn', listId: list, letter: finishedLetter() }, 0)
  const people = ['long', 'just', 'reads', 'later'].map((name) => join(name))
  const [long, just, reads, later] = people as [number, number, number, number]
  wasSent(mailing, long, engine.time.now - 5 * DAY)
  wasSent(mailing, just, engine.time.now - 2 * DAY)
  wasSent(mailing, reads, engine.time.now - 2 * DAY)
  running([{ is: 'mailed', mailingId: mailing, did: 'not opened', within: 3 * DAY }])
  wasSent(mailing, later)
  await settle()
  expect(nextStartDue(db)).toBe(engine.time.now + DAY)
  run(db, recipientsOf(mailing, reads).set({ opened_at: engine.time.now }))
  await after(DAY)
  expect(people.map((one) => states(one).length)).toEqual([0, 1, 0, 0])
  await after(2 * DAY)
  expect(people.map((one) => states(one).length)).toEqual([0, 1, 0, 1])
  expect(nextStartDue(db)).toBeNull()
  expect(cuesKept()).toBe(0)
})

test('an event lets in by what it carried, and a fork asks for it', async () => {
  const where = {
    property: 'sum',
    test: { is: 'number' as const, than: 'at-least' as const, number: 100 },
  }
  const id = running([{ is: 'event', name: 'basket', where }])
  const carries = (person_id: number, props: object) =>
    run(
      db,
      q
        .insertInto('events')
        .values({ person_id, name: 'basket', at: engine.time.now, props: JSON.stringify(props) }),
    )
  const [tove, mina, ola] = [join('tove'), join('mina'), join('ola')]
  carries(tove, { sum: 240 })
  carries(mina, { sum: 12 })
  carries(ola, { sum: 'much' })
  await settle()
  expect(standingAt(db, id)).toEqual({ only: 1 })
  expect([tove, mina, ola].map((one) => states(one).length)).toEqual([1, 0, 0])
  const holds = happeningsAt(db, engine.time.now)
  const asked = (person_id: number, more: object = { where }) =>
    holds(emptyMap, { sequence_id: id, person_id, round: 0, entered_at: engine.time.now })({
      ...{ is: 'did', event: 'basket', ...more },
    })
  expect([tove, mina].map((one) => asked(one))).toEqual([true, false])
  expect(asked(mina, {})).toBe(true)
})

test('a moment lets a whole segment in, once or by its rule, and never late by more than a week', async () => {
  const segmentId = segmentOfOrrin()
  // A Monday; it is the 23rd.
  const from = '2026-11-30'
  const rule = 'FREQ=MONTHLY;BYDAY=-1MO'
  const all = running([{ is: 'moment', from, hour: 9, rule: null, segmentId: 0 }])
  const some = running([{ is: 'moment', from, hour: 9, rule, segmentId }], { is: 'each' })
  const [tove, mina] = [join('tove', { town: 'Orrin' }), join('mina')]
  somebody(db, 'stranger', { values: { town: 'Orrin' } })
  await settle()
  expect(nextStartDue(db)).toBe(Date.UTC(2026, 10, 30, 9))
  engine.time.now = Date.UTC(2026, 10, 30, 9)
  await settle()
  expect([standingAt(db, all), standingAt(db, some)]).toEqual([{ only: 2 }, { only: 1 }])
  expect(rounds(mina)).toMatchObject([{ start: 0 }])
  engine.time.now = Date.UTC(2026, 11, 28, 9)
  await settle()
  expect(rounds(tove)).toHaveLength(3)
  // Nothing ran on the last Monday of January, nor for ten days behind it.
  engine.time.now = Date.UTC(2027, 1, 5, 9)
  await settle()
  expect(rounds(tove)).toHaveLength(3)
})

const inOrrin = { kind: 'field', key: 'town', test: { is: 'equal', text: 'Orrin' } } as const
function segmentOfOrrin() {
  run(db, q.insertInto('fields').values({ key: 'town', name: 'Town', kind: 'text', position: 0 }))
  return addSegment(db, 'From Orrin', inOrrin, 0)
}
const moves = (person: number, town: string) =>
  run(
    db,
    q
      .updateTable('people')
      .set({ fields: JSON.stringify({ town }) })
      .where('id', '=', person),
  )

test('who comes into a segment comes in, and who leaves it where that is asked', async () => {
  const segmentId = segmentOfOrrin()
  const comes = running([{ is: 'segment', segmentId, comes: true }])
  const leaves = running([{ is: 'segment', segmentId, comes: false }])
  const [tove, mina] = [join('tove'), join('mina', { town: 'Orrin' })]
  // Who is in it already when it is noted first did not come.
  while (await followSegments(engine));
  await settle()
  expect([standingAt(db, comes), standingAt(db, leaves)]).toEqual([{}, {}])
  moves(tove, 'Orrin')
  moves(mina, 'Sandreach')
  engine.time.now += DAY
  while (await followSegments(engine));
  await settle()
  expect([standingAt(db, comes), standingAt(db, leaves)]).toEqual([{ only: 1 }, { only: 1 }])
  expect(rounds(tove)).toMatchObject([{ start: 0 }])
})

test('a segment is let in by hand: counted before, and only who may', async () => {
  const segmentId = segmentOfOrrin()
  const id = running([])
  const [tove, mina] = [join('tove', { town: 'Orrin' }), join('mina', { town: 'Orrin' })]
  somebody(db, 'stranger', { values: { town: 'Orrin' } })
  join('other')
  expect(enrolPerson(db, id, mina, engine.time.now)).toBe(true)
  expect(enrolPerson(db, id, mina, engine.time.now)).toBe(false)
  const sequence = sequenceById(db, id)!
  const { rule } = segmentById(db, segmentId)!
  expect(couldComeIn(db, sequence, rule, engine.time.now)).toEqual({ people: 2, fresh: 1 })
  expect(letSegmentIn(db, sequence, rule, engine.time.now)).toBe(2)
  expect(arrivalsOf(db, id)).toBe(2)
  await settle()
  expect(arrivalsOf(db, id)).toBe(0)
  expect(rounds(tove)).toEqual([{ round: 0, state: 'inside', start: null, started_by: null }])
  expect(states(mina)).toEqual(['inside'])
})

test('some people are let in by hand, and that is undone, whether they wait or have come in', async () => {
  const id = running([])
  const [tove, mina, piet] = [join('tove'), join('mina'), join('piet')]
  const stranger = somebody(db, 'stranger')
  expect(enrolPerson(db, id, piet, engine.time.now)).toBe(true)
  const sequence = sequenceById(db, id)!
  const everybody = [tove, mina, piet, stranger, 99_999]
  const letIn = () => letPeopleIn(db, sequence, everybody, engine.time.now)
  // Who is inside, on no list of it, or nobody, is left out; and nobody waits twice.
  expect([letIn(), letIn(), arrivalsOf(db, id)]).toEqual([[tove, mina], [], 2])
  expect(letPeopleOut(db, id, [mina], engine.time.now)).toEqual([mina])
  await settle()
  expect([states(tove), states(mina), states(piet)]).toEqual([['inside'], [], ['inside']])
  expect(letPeopleOut(db, id, [tove, mina], engine.time.now)).toEqual([tove])
  expect(states(tove)).toEqual(['left'])
  expect(letPeopleOut(db, id, [tove], engine.time.now)).toEqual([])
})

test('taken out by hand, they get nothing more of it, in any round', async () => {
  const id = running([{ is: 'event', name: 'basket' }], { is: 'each' })
  const tove = join('tove')
  happens(tove)
  await settle()
  happens(tove)
  await settle()
  expect(takeOut(db, id, tove, engine.time.now)).toBe(2)
  expect(takeOut(db, id, tove, engine.time.now)).toBe(0)
  await after(3 * DAY)
  expect(states(tove)).toEqual(['left', 'left'])
  expect(readSequences(db)).toMatchObject([{ inside: 0, finished: 0, left: 2 }])
})

test('an engine that ends in the middle lets nobody in twice', async () => {
  running([{ is: 'event', name: 'basket' }], { is: 'each' })
  const tove = join('tove')
  happens(tove)
  expect(() =>
    transact(db, () => {
      void runSequences(engine)
      throw new Error('ended')
    }),
  ).toThrow('ended')
  await settle()
  expect(rounds(tove)).toHaveLength(1)
})

test('a date that was missed by more than a week is not kept late', async () => {
  run(
    db,
    q.insertInto('fields').values({ key: 'birthday', name: 'Birthday', kind: 'date', position: 0 }),
  )
  running([birthday])
  const [early, late] = [
    join('early', { birthday: '1988-11-25' }),
    join('late', { birthday: '1988-12-02' }),
  ]
  await after(15 * DAY)
  expect([states(early), states(late)]).toEqual([[], ['inside']])
})

test('who waits for something to happen goes on as soon as it does, or when the time is over', async () => {
  const id = addSequence(db, 'Waits', list, 0)
  const start = {
    by: [{ is: 'joined' as const, signUpId: null }],
    again: { is: 'never' as const },
    rule: null,
  }
  let map = insertStep({ ...emptyMap, start }, null, 'wait', {
    ...{ kind: 'wait', ms: 3 * DAY, ways: [{ next: null }] },
    until: { is: 'happens', what: { is: 'did', event: 'booked' } },
  })
  map = insertStep(map, 'wait', 'tag', { kind: 'do', acts: [{ is: 'tag', tag: 'booked' }] })
  map = insertStep(map, { step: 'wait', way: 1 }, 'late', {
    ...{ kind: 'do', acts: [{ is: 'tag', tag: 'slow' }] },
  })
  changeSequence(db, sequenceById(db, id)!, { name: 'Waits', listId: list, map }, 1)
  startSequence(db, sequenceById(db, id)!, engine.time.now)
  const [tove, mina] = [join('tove'), join('mina')]
  await settle()
  expect(standingAt(db, id)).toEqual({ wait: 2 })
  await after(HOUR)
  happens(tove, 'page view')
  await settle()
  expect(standingAt(db, id)).toEqual({ wait: 2 })
  happens(tove, 'booked')
  await settle()
  expect(everythingKnown(db, tove)!.tags).toEqual(['booked'])
  expect(trafficOf(db, id).wait).toEqual([1])
  await after(3 * DAY - 2 * HOUR)
  expect(everythingKnown(db, mina)!.tags).toEqual([])
  await after(HOUR)
  expect(everythingKnown(db, mina)!.tags).toEqual(['slow'])
  expect(trafficOf(db, id).wait).toEqual([1, 1])
})

test('who fits a start already comes in when it starts, where that is asked, once', async () => {
  const owner = tagNamed(db, 'owner')
  const [tove, mina] = [join('tove'), join('mina')]
  const stranger = somebody(db, 'stranger')
  for (const one of [tove, stranger]) tag(one, 'owner')
  const id = addSequence(db, 'Owners', list, 0)
  const by: Starting[] = [{ is: 'tag', tagId: owner, gets: true }]
  const start = { by, again: { is: 'each' as const }, rule: null, already: true as const }
  const write = (map: SequenceMap) => {
    const of = sequenceById(db, id)!
    changeSequence(db, of, { name: of.name, listId: list, map }, of.revision)
  }
  const begin = () => startSequence(db, sequenceById(db, id)!, engine.time.now)
  const drawn = insertStep({ ...emptyMap, start }, null, 'only', waits)
  write(drawn)
  expect(couldComeIn(db, sequenceById(db, id)!, alreadyThere(start)!, 0).people).toBe(1)
  begin()
  await settle()
  expect([tove, mina, stranger].map((one) => rounds(one).length)).toEqual([1, 0, 0])
  // Published once more, and gone on with after a pause, nobody comes in by it again.
  write(insertStep(drawn, 'only', 'more', waits))
  begin()
  pauseSequence(db, id, engine.time.now)
  begin()
  await settle()
  expect(rounds(tove)).toHaveLength(1)
  expect(alreadyThere({ by: [{ is: 'event', name: 'basket' }], rule: null })).toBeNull()
})
