import { addressed } from '../core/delivery'
import { beforeEach, expect, test } from 'vitest'
import {
  changeStep,
  emptyMap,
  insertStep,
  lotOf,
  removeStep,
  type MailStep,
  type NewStep,
  type SequenceMap,
  type Spot,
  type WaitStep,
  type WhenFull,
} from '../core/sequences'
import { DAY, HOUR } from '../core/time'
import { all, one, q, run, transact, type Database } from '../database'
import {
  advanceDue,
  asItRuns,
  carryOut,
  enrolNew,
  nextStepDue,
  peopleInside,
  standingAt,
  addMailOf,
  addSequence,
  changeSequence,
  deleteSequence,
  endSequence,
  letPeopleIn,
  mailingsOfSequence,
  pauseSequence,
  readSequences,
  sequenceById,
  setMark,
  startSequence,
  waitingToGoOn,
  trafficOf,
  whoGoesWhere,
} from '../database/sequences'
import { sequenceProblems } from '../cases/sequences'
import {
  erasePerson,
  everythingKnown,
  addList,
  mergePeople,
  personDetails,
  readTags,
  suppressPeople,
  changeSubscription,
} from '../database/people'
import { madeUpAccount, somebody } from '../database/made-up'
import { createMailing, mailingById, senderOf } from '../database/mailings'
import { endPause, pauseMail } from '../database/readers'
import { addRecipient, readRecipient, recipientAdder } from '../database/sending'
import { addSegment, countMembers, usesOfSegment } from '../database/segments'
import { finishedLetter } from '../tests/subscribers'
import { runJobs } from './jobs'
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

const read = (id: number) => sequenceById(db, id)!
function write(id: number, change: { map?: SequenceMap; name?: string; listId?: number | null }) {
  const { name, list_id, map, revision } = read(id)
  return changeSequence(db, read(id), { name, listId: list_id, map, ...change }, revision)
}
function mailStep(id: number, after: string | null, step: string): number {
  const mailing = addMailOf(db, read(id), `Mail ${step}`, 0)
  const { subject, document } = finishedLetter()
  run(
    db,
    q
      .updateTable('letters')
      .set({ subject, document: JSON.stringify(document) })
      .where('id', '=', mailingById(db, mailing)!.letter_id),
  )
  write(id, { map: insertStep(read(id).map, after, step, { kind: 'mail', mailingId: mailing }) })
  return mailing
}
/** A welcome: a mail, two days, another mail. Its mailings. */
function welcome(): { id: number; first: number; second: number } {
  const id = addSequence(db, 'Welcome', list, 0)
  const first = mailStep(id, null, 'hello')
  write(id, {
    map: insertStep(read(id).map, 'hello', 'pause', { kind: 'wait', ms: 2 * DAY }),
  })
  return { id, first, second: mailStep(id, 'pause', 'again') }
}
const start = (id: number) => startSequence(db, read(id), engine.time.now)
const state = (mailing: number, person: number) =>
  readRecipient(db, addressed(mailing, person))?.state
const join = (name: string) => somebody(db, name, { list, now: engine.time.now })
async function settle() {
  while (await runSequences(engine));
}

test('who joins comes in and goes on in time; who joined before does not', async () => {
  const before = join('early')
  const { id, first, second } = welcome()
  expect(sequenceProblems(db, read(id), engine.time.now)).toEqual([])
  expect(start(id)).toBe(true)
  const person = join('tove')
  await settle()
  expect(mailingById(db, first)).toMatchObject({ state: 'sending', sequence_id: id })
  expect([state(first, person), state(second, person)]).toEqual(['queued', undefined])
  expect(state(first, before)).toBeUndefined()
  expect(standingAt(db, id)).toEqual({ pause: 1 })
  expect(nextStepDue(db)).toBe(engine.time.now + 2 * DAY)
  expect(peopleInside(db, id, 9)).toMatchObject([{ id: person, step: 'pause', version: 1 }])
  engine.time.now += 2 * DAY
  await settle()
  expect(state(second, person)).toBe('queued')
  expect(readSequences(db)).toMatchObject([{ name: 'Welcome', inside: 0, finished: 1, left: 0 }])
  expect(everythingKnown(db, person)!.sequences).toMatchObject([
    { name: 'Welcome', state: 'finished' },
  ])
})

test('each step is carried out once, however often the engine looks, and nobody comes in twice', async () => {
  const { id, first } = welcome()
  start(id)
  const person = join('tove')
  for (let i = 0; i < 5; i++) await settle()
  changeSubscription(db, person, list, 'unsubscribed', { act: 'person', way: 'form' }, 1)
  changeSubscription(
    db,
    person,
    list,
    'subscribed',
    { act: 'person', way: 'form', wording: 'I want it.' },
    2,
  )
  setMark(db, id, 0, 0)
  await settle()
  const rows = q.selectFrom('recipients').select('person_id').where('mailing_id', '=', first)
  expect(all(db, rows)).toHaveLength(1)
  expect(standingAt(db, id)).toEqual({ pause: 1 })
})

test('who leaves the list or is suppressed gets nothing more', async () => {
  const { id, second } = welcome()
  start(id)
  const [leaver, aside] = [join('leaver'), join('aside')]
  await settle()
  changeSubscription(
    db,
    leaver,
    list,
    'unsubscribed',
    { act: 'person', way: 'link' },
    engine.time.now,
  )
  suppressPeople(db, [aside], 'asked', engine.time.now)
  engine.time.now += 3 * DAY
  await settle()
  expect([state(second, leaver), state(second, aside)]).toEqual([undefined, undefined])
  const why = all(db, q.selectFrom('enrolments').select(['why']).orderBy('person_id'))
  expect(why).toEqual([{ why: 'unsubscribed' }, { why: 'suppressed' }])
})

test('who pauses their mail waits inside until the pause is over, or ends it', async () => {
  const { id, first, second } = welcome()
  start(id)
  const [waits, early] = [join('waits'), join('early')]
  await settle()
  const by = { wording: 'Pause for 2 weeks', detail: '', mailingId: first, ip: null, agent: null }
  const from = engine.time.now
  for (const person of [waits, early]) pauseMail(db, person, from + 14 * DAY, by, from)
  engine.time.now += 3 * DAY
  await settle()
  expect([state(second, waits), state(second, early)]).toEqual([undefined, undefined])
  endPause(db, early, by, engine.time.now)
  await settle()
  expect([state(second, waits), state(second, early)]).toEqual([undefined, 'queued'])
  engine.time.now = from + 14 * DAY
  await settle()
  expect(state(second, waits)).toBe('queued')
})

test('an event lets in who is on the list, and a rule keeps others out', async () => {
  const { id, first } = welcome()
  const segment = addSegment(
    db,
    'From Orrin',
    { kind: 'field', key: 'town', test: { is: 'equal', text: 'Orrin' } },
    0,
  )
  run(db, q.insertInto('fields').values({ key: 'town', name: 'Town', kind: 'text', position: 0 }))
  const map = {
    ...read(id).map,
    start: {
      ...{ ...emptyMap.start, by: [{ is: 'event' as const, name: 'basket' }] },
      rule: { kind: 'segment' as const, segmentId: segment },
    },
  }
  write(id, { map })
  expect(usesOfSegment(db, segment).sequences).toEqual([{ id, name: 'Welcome', state: 'draft' }])
  start(id)
  const values = { town: 'Orrin' }
  const [fits, other] = [somebody(db, 'fits', { list, values }), join('other')]
  const stranger = somebody(db, 'stranger', { values })
  for (const person_id of [fits, other, stranger])
    for (const name of ['basket', 'page view'])
      run(db, q.insertInto('events').values({ person_id, name, at: engine.time.now, props: '{}' }))
  await settle()
  expect([fits, other, stranger].map((one) => state(first, one))).toEqual([
    'queued',
    undefined,
    undefined,
  ])
})

test('paused, nobody comes in and nobody goes on; resumed, those inside do', async () => {
  const { id, first, second } = welcome()
  start(id)
  const inside = join('inside')
  await settle()
  expect(pauseSequence(db, id, 0)).toBe(true)
  expect(mailingById(db, first)!.state).toBe('held')
  const meanwhile = join('meanwhile')
  engine.time.now += 3 * DAY
  await settle()
  expect(advanceDue(db, engine.time.now)).toBe(0)
  expect(start(id)).toBe(true)
  await settle()
  expect(mailingById(db, first)!.state).toBe('sending')
  expect(state(second, inside)).toBe('queued')
  expect(state(first, meanwhile)).toBeUndefined()
})

test('after a pause those who waited go on at once, or spread by lot over a time; others when they are due', async () => {
  const { id, first, second } = welcome()
  start(id)
  const people = Array.from({ length: 40 }, (_, n) => join(`one${n}`))
  await settle()
  engine.time.now += 1 * DAY
  const late = join('late')
  await settle()
  pauseSequence(db, id, engine.time.now)
  engine.time.now += 1.5 * DAY
  expect(waitingToGoOn(db, id, engine.time.now)).toBe(40)
  const resumed = engine.time.now
  expect(startSequence(db, read(id), resumed, { spread: DAY })).toBe(true)
  const mailed = () => people.filter((person) => state(second, person) !== undefined).length
  await settle()
  expect([mailed(), state(first, late)]).toEqual([0, 'queued'])
  const at: number[] = []
  for (let hour = 1; hour <= 24; hour++) {
    engine.time.now = resumed + hour * HOUR
    await settle()
    at.push(mailed())
    // Two days after they joined, as ever.
    expect(state(second, late)).toBe(hour < 12 ? undefined : 'queued')
  }
  expect(at.at(-1)).toBe(40)
  // By lot: about half in half of the time, and never most of them at once.
  expect(at[11]).toBeGreaterThan(10)
  expect(at[11]).toBeLessThan(30)
  expect(Math.max(...at.map((n, hour) => n - (at[hour - 1] ?? 0)))).toBeLessThan(10)
})

test('a second pause draws anew only whoever is late again', async () => {
  const { id, second } = welcome()
  start(id)
  const one = join('one')
  await settle()
  pauseSequence(db, id, engine.time.now)
  engine.time.now += 3 * DAY
  startSequence(db, read(id), engine.time.now, { spread: 2 * HOUR })
  await settle()
  pauseSequence(db, id, engine.time.now)
  engine.time.now += DAY
  startSequence(db, read(id), engine.time.now)
  await settle()
  expect(state(second, one)).toBe('queued')
})

test('a segment that the running map asks for is used, also where it is drawn without it by now', async () => {
  const { id } = welcome()
  const used = () => usesOfSegment(db, segmentId).sequences.length
  const rule = { kind: 'field', key: 'town', test: { is: 'equal', text: 'Orrin' } } as const
  const segmentId = addSegment(db, 'From Orrin', rule, 0)
  const { map } = read(id)
  const moment = { is: 'moment' as const, from: '2027-01-04', hour: 9, rule: null, segmentId }
  write(id, { map: { ...map, start: { ...map.start, by: [...map.start.by, moment] } } })
  expect(used()).toBe(1)
  start(id)
  join('tove')
  await settle()
  write(id, { map })
  expect(used()).toBe(1)
  // Published without it, who came in before is still led by the map with it.
  start(id)
  expect(used()).toBe(1)
  engine.time.now += 3 * DAY
  await settle()
  expect(used()).toBe(0)
})

test('a mail that heeds the frequency cap waits for room, or is left out; one that does not goes out', async () => {
  run(db, q.updateTable('account').set({ cap_mailings: 2, cap_days: 7 }))
  const { id, first, second } = welcome()
  const third = mailStep(id, 'again', 'third')
  const heeds = (step: string, full: WhenFull) => {
    const { map } = read(id)
    write(id, { map: changeStep(map, step, { ...(map.steps[step] as MailStep), full }) })
  }
  heeds('again', { waitDays: 9 })
  heeds('third', 'skip')
  start(id)
  const [tove, mina] = [join('tove'), join('mina')]
  const sent = { state: 'accepted' as const }
  for (const days of [1, 2]) {
    const at = engine.time.now - days * DAY
    const other = createMailing(db, { name: 'Other', listId: list, letter: finishedLetter() }, 0)
    transact(db, () => addRecipient(db, addressed(other, tove, 0), at))
    const to = q.updateTable('recipients').where('mailing_id', '=', other)
    run(db, to.set({ ...sent, accepted_at: at }))
  }
  await settle()
  // The first goes past the cap; on its way it counts as sent.
  expect([state(first, tove), state(first, mina)]).toEqual(['queued', 'queued'])
  const firsts = q.updateTable('recipients').where('mailing_id', '=', first)
  run(db, firsts.set({ ...sent, accepted_at: engine.time.now }))
  engine.time.now += 2 * DAY
  await settle()
  expect([state(second, tove), state(second, mina)]).toEqual([undefined, 'queued'])
  expect(state(third, mina)).toBeUndefined()
  // Three are of the last week: there is room when the second of them is a week ago.
  expect(nextStepDue(db)).toBe(engine.time.now + 4 * DAY)
  engine.time.now += 4 * DAY
  await settle()
  expect([state(second, tove), state(third, tove)]).toEqual(['queued', undefined])
  expect(readSequences(db)).toMatchObject([{ inside: 0, finished: 2 }])
})

const inside = () =>
  all(
    db,
    q.selectFrom('enrolments').select(['version', 'state', 'step', 'due']).orderBy('person_id'),
  )

test('what is drawn beside a running sequence holds once it is published, for who comes in from then on', async () => {
  const { id, second } = welcome()
  start(id)
  const old = join('old')
  await settle()
  const drawn = removeStep(removeStep(read(id).map, 'again'), 'pause')
  expect(write(id, { map: drawn })).toBe(true)
  const between = join('between')
  await settle()
  expect(inside().map(({ version, step }) => [version, step])).toEqual([
    [1, 'pause'],
    [1, 'pause'],
  ])
  expect(whoGoesWhere(db, read(id))).toMatchObject([{ version: 1, people: 2, moves: false }])
  expect(start(id)).toBe(true)
  // There is nothing more to publish.
  expect(start(id)).toBe(false)
  const fresh = join('fresh')
  engine.time.now += 2 * DAY
  await settle()
  expect([old, between, fresh].map((one) => state(second, one))).toEqual([
    ...['queued', 'queued', undefined],
  ])
  expect(inside().map(({ version, state }) => [version, state])).toEqual([
    [1, 'finished'],
    [1, 'finished'],
    [2, 'finished'],
  ])
})

test('who did something just before a version was published comes in by it, once', async () => {
  const { id } = welcome()
  start(id)
  const before = join('before')
  const { map } = read(id)
  const by = [{ is: 'event' as const, name: 'basket' }, ...map.start.by]
  write(id, { map: { ...map, start: { ...map.start, by } } })
  run(
    db,
    q
      .insertInto('events')
      .values({ person_id: before, name: 'basket', at: engine.time.now, props: '{}' }),
  )
  start(id)
  await settle()
  const rows = q.selectFrom('enrolments').select(['version', 'start'])
  // By joining, which now stands second; the event was before it was asked for.
  expect(all(db, rows)).toEqual([{ version: 2, start: 1 }])
})

async function publishAndMove(id: number) {
  startSequence(db, read(id), engine.time.now, { moves: true })
  while (await runJobs(engine));
  await settle()
}

test('moved people go on by the new version where their step is still there, and get no mail twice', async () => {
  const { id, first, second } = welcome()
  start(id)
  const [tove, mina] = [join('tove'), join('mina')]
  await settle()
  engine.time.now += DAY
  const late = join('late')
  await settle()
  const { map } = read(id)
  // Shorter: counted from when they came to it, it is over for two of them.
  const shorter = changeStep(map, 'pause', { ...map.steps.pause!, ms: DAY } as WaitStep)
  // The first mail stands behind it once more.
  write(id, {
    map: insertStep(shorter, 'pause', 'hello-again', { kind: 'mail', mailingId: first }),
  })
  expect(whoGoesWhere(db, read(id))).toMatchObject([{ version: 1, people: 3, moves: true }])
  await publishAndMove(id)
  expect(inside().map(({ version, state }) => [version, state])).toEqual([
    [2, 'finished'],
    [2, 'finished'],
    [2, 'inside'],
  ])
  expect([tove, mina, late].map((one) => state(second, one))).toEqual([
    ...['queued', 'queued', undefined],
  ])
  const got = q.selectFrom('recipients').select('person_id').where('mailing_id', '=', first)
  expect(all(db, got.orderBy('person_id'))).toHaveLength(3)
  expect(standingAt(db, id)).toEqual({ pause: 1 })
})

test('who stands at a step that is gone, or became another kind, stays on the version they came in by', async () => {
  const { id, second } = welcome()
  start(id)
  const tove = join('tove')
  await settle()
  write(id, { map: changeStep(read(id).map, 'pause', { kind: 'do', acts: [], next: 'again' }) })
  expect(whoGoesWhere(db, read(id))).toMatchObject([{ moves: false }])
  await publishAndMove(id)
  expect(inside()).toMatchObject([{ version: 1, step: 'pause' }])
  engine.time.now += 2 * DAY
  await settle()
  expect(state(second, tove)).toBe('queued')
})

test('a move that another version overtakes moves nobody', async () => {
  const { id } = welcome()
  start(id)
  join('tove')
  await settle()
  const length = (ms: number) =>
    write(id, { map: changeStep(read(id).map, 'pause', { kind: 'wait', ms, next: 'again' }) })
  length(3 * DAY)
  startSequence(db, read(id), engine.time.now, { moves: true })
  length(4 * DAY)
  startSequence(db, read(id), engine.time.now)
  while (await runJobs(engine));
  expect(inside()).toMatchObject([{ version: 1 }])
})

test('a mail that only who came in earlier still gets is kept when it is taken out of the map', async () => {
  const { id, second } = welcome()
  startSequence(db, read(id), engine.time.now)
  const tove = join('tove')
  // They came in, and no letter has begun to go out.
  transact(db, () => enrolNew(db, asItRuns(db, read(id)), engine.time.now))
  write(id, { map: removeStep(read(id).map, 'again') })
  start(id)
  expect(mailingById(db, second)).toBeDefined()
  await settle()
  engine.time.now += 2 * DAY
  await settle()
  expect(state(second, tove)).toBe('queued')
  expect(mailingById(db, second)!.state).toBe('sending')
})

test('once it has run it stays with its list: nobody is mailed on behalf of a list they did not join', async () => {
  const { id } = welcome()
  start(id)
  pauseSequence(db, id, 0)
  const other = addList(db, { name: 'Offers', description: '' }, 0)
  write(id, { listId: other, name: 'Hello' })
  expect(read(id)).toMatchObject({ list_id: list, name: 'Hello' })
  const later = mailStep(id, 'again', 'third')
  expect(mailingById(db, later)!.list_id).toBe(list)
})

test('its mails come from the sender that the sequence has, also those that are added later', () => {
  const { id, first } = welcome()
  const { map } = read(id)
  const sender = { name: 'Wren', local: 'wren', replies: 'kept' as const }
  write(id, { map: { ...map, start: { ...map.start, sender } } })
  const third = mailStep(id, 'again', 'third')
  for (const mail of [first, third])
    expect(senderOf(db, mailingById(db, mail)!)).toEqual({
      name: 'Wren',
      address: 'wren@galewright.example',
      replies: 'kept',
    })
  write(id, { map: { ...read(id).map, start: map.start } })
  expect(senderOf(db, mailingById(db, first)!).address).toBe('hello@galewright.example')
})

test('ended, whoever is inside leaves, and its mails are over', async () => {
  const { id, first } = welcome()
  start(id)
  join('inside')
  await settle()
  expect(endSequence(db, id, engine.time.now)).toBe(1)
  expect(endSequence(db, id, engine.time.now)).toBeNull()
  expect(mailingById(db, first)!.state).toBe('sent')
  expect(readSequences(db)).toMatchObject([{ state: 'ended', inside: 0, left: 1 }])
  expect(deleteSequence(db, id)).toBe(false)
})

test('two who edit at once: the second is told, and loses nothing', () => {
  const { id } = welcome()
  const seen = read(id)
  expect(changeSequence(db, seen, { ...seen, listId: list, name: 'A' }, seen.revision)).toBe(true)
  expect(changeSequence(db, seen, { ...seen, listId: list, name: 'B' }, seen.revision)).toBe(false)
  expect(read(id).name).toBe('A')
})

test('a draft goes with its letters; a mail taken out goes when it starts, and can be brought back before', () => {
  const { id, second } = welcome()
  const { map } = read(id)
  write(id, { map: removeStep(map, 'again') })
  write(id, { map })
  expect(mailingById(db, second)).toBeDefined()
  write(id, { map: removeStep(removeStep(map, 'again'), 'pause') })
  start(id)
  expect(mailingById(db, second)).toBeUndefined()
  run(db, q.updateTable('sequences').set({ state: 'draft' }))
  expect(deleteSequence(db, id)).toBe(true)
  expect(mailingsOfSequence(db, id)).toEqual([])
  expect(one(db, q.selectFrom('letters').select('id'))).toBeUndefined()
})

test('what keeps it from running is said', () => {
  const id = addSequence(db, 'Empty', null, 0)
  expect(sequenceProblems(db, read(id), 0)).toHaveLength(2)
  const { id: other, first } = welcome()
  run(
    db,
    q
      .updateTable('letters')
      .set({ subject: '' })
      .where('id', '=', mailingById(db, first)!.letter_id),
  )
  expect(sequenceProblems(db, read(other), engine.time.now)).toEqual([
    { title: expect.stringMatching(/^Mail hello: .*subject/i) as string, step: 'hello' },
  ])
  write(other, {
    map: { ...emptyMap, first: 'x', steps: { x: { kind: 'mail', mailingId: 99, next: null } } },
  })
  expect(sequenceProblems(db, read(other), 0)).toEqual([
    { title: 'A mail is gone. Remove its step.', step: 'x' },
  ])
})

test('merged, one stays in what either was in; erased, nothing stays', async () => {
  const { id } = welcome()
  start(id)
  const [kept, gone] = [somebody(db, 'kept'), join('gone')]
  await settle()
  mergePeople(db, kept, gone, engine.time.now)
  await settle()
  expect(peopleInside(db, id, 9).map((one) => one.id)).toEqual([kept])
  const rule = { kind: 'sequence', sequenceId: id, is: 'inside' } as const
  expect(countMembers(db, rule, engine.time.now + HOUR)).toBe(1)
  erasePerson(db, kept, engine.time.now)
  expect(all(db, q.selectFrom('enrolments').selectAll())).toEqual([])
})

/** A fork behind a welcome's wait: who clicked gets a tag and a field, everyone else another mail; a goal ends it all. */
function forked() {
  const id = addSequence(db, 'First order', list, 0)
  const hello = mailStep(id, null, 'hello')
  const put = (at: Spot, step: string, what: NewStep) =>
    write(id, { map: insertStep(read(id).map, at, step, what) })
  put({ step: 'hello', way: 0 }, 'pause', { kind: 'wait', ms: 2 * DAY })
  put({ step: 'pause', way: 0 }, 'fork', {
    kind: 'fork',
    ways: [{ when: { is: 'clicked', mail: 'hello' }, next: null }],
  })
  put({ step: 'fork', way: 1 }, 'mark', {
    kind: 'do',
    acts: [
      { is: 'tag', tag: 'keen' },
      { is: 'set', field: 'first_name', value: 'Keen' },
    ],
  })
  const nudge = mailStep(id, 'fork', 'nudge')
  put({ step: 'nudge', way: 0 }, 'rest', { kind: 'wait', ms: DAY })
  put({ step: 'rest', way: 0 }, 'goal', {
    ...{ kind: 'goal', name: 'ordered', when: { is: 'ordered' }, out: true },
  })
  return { id, hello, nudge }
}
const order = (person: number, at: number) =>
  run(
    db,
    q.insertInto('orders').values({ number: `${person} ${at}`, person_id: person, at, money: 900 }),
  )
const standing = (person: number) =>
  one(
    db,
    q.selectFrom('enrolments').select(['state', 'why', 'step']).where('person_id', '=', person),
  )

test('a fork asks what they did since they came in; a step does what it says, once; ways are counted', async () => {
  const { id, hello, nudge } = forked()
  expect(sequenceProblems(db, read(id), engine.time.now)).toEqual([])
  start(id)
  const [keen, other] = [join('keen'), join('other')]
  await settle()
  run(
    db,
    q
      .updateTable('recipients')
      .set({ clicked_at: engine.time.now })
      .where('mailing_id', '=', hello)
      .where('person_id', '=', keen),
  )
  engine.time.now += 2 * DAY
  await settle()
  await settle()
  expect([state(nudge, keen), state(nudge, other)]).toEqual([undefined, 'queued'])
  const known = everythingKnown(db, keen)!
  expect(known.tags).toEqual(['keen'])
  expect(personDetails(db, keen)!.person.first_name).toBe('Keen')
  expect(personDetails(db, other)!.person.first_name).not.toBe('Keen')
  expect(standing(keen)).toMatchObject({ state: 'finished', why: null })
  expect(trafficOf(db, id)).toMatchObject({
    ...{ hello: [2], pause: [2], fork: [1, 1], mark: [1], nudge: [1] },
  })
})

test('who reaches the goal is out at their next step, and only by what they did since they came in', async () => {
  const { id, nudge } = forked()
  start(id)
  const [buyer, before] = [join('buyer'), join('before')]
  order(before, engine.time.now - 1)
  await settle()
  engine.time.now += HOUR
  order(buyer, engine.time.now)
  engine.time.now += 2 * DAY
  await settle()
  expect(standing(buyer)).toEqual({ state: 'finished', why: 'goal', step: 'goal' })
  expect(standing(before)).toMatchObject({ state: 'inside', step: 'rest' })
  expect([state(nudge, buyer), state(nudge, before)]).toEqual([undefined, 'queued'])
  expect(trafficOf(db, id).goal).toEqual([0, 1])
})

test('a split draws by lot, always the same for somebody; a rule is asked as things are then', async () => {
  const id = addSequence(db, 'Halves', list, 0)
  const mail = mailStep(id, null, 'hello')
  const map = insertStep(read(id).map, null, 'split', {
    kind: 'split',
    ways: [{ share: 300, next: null }],
  })
  write(id, {
    map: insertStep(map, { step: 'split', way: 1 }, 'tag', {
      kind: 'do',
      acts: [{ is: 'tag', tag: 'aside' }],
    }),
  })
  start(id)
  const people = Array.from({ length: 200 }, (_, n) => join(`half${n}`))
  await settle()
  const [main, aside] = trafficOf(db, id).split as [number, number]
  expect(main + aside).toBe(200)
  expect(aside).toBeGreaterThan(35)
  expect(aside).toBeLessThan(85)
  expect(everythingKnown(db, people[0]!)!.tags).toEqual(
    lotOf(id, 'split', people[0]!, 0) < 0.3 ? ['aside'] : [],
  )
  expect(people.every((person) => state(mail, person) === 'queued')).toBe(true)
})

test('what a step takes away and is not there makes nothing', () => {
  const person = join('tove')
  const at = { sequenceId: 1, person, round: 0, step: 'do', visit: 0, act: 0 }
  const of = { list, sequence: 'First breeze', mails: recipientAdder(db, 5) }
  const tags = () => readTags(db).map(({ name }) => name)
  carryOut(db, { is: 'untag', tag: 'never' }, at, of, 5)
  expect(tags()).not.toContain('never')
  carryOut(db, { is: 'tag', tag: ' Owner ' }, at, of, 5)
  expect(everythingKnown(db, person)!.tags).toEqual(['Owner'])
  carryOut(db, { is: 'untag', tag: 'owner' }, at, of, 5)
  expect(everythingKnown(db, person)!.tags).toEqual([])
  carryOut(db, { is: 'set', field: 'nowhere', value: 'x' }, at, of, 5)
  carryOut(db, { is: 'set', field: 'first_name', value: '' }, at, of, 5)
  expect(personDetails(db, person)!.person.first_name).toBeNull()
})

test('who waits for the hour they read most goes on in it; who has not read, in everybody’s', async () => {
  const today = engine.time.now - (engine.time.now % DAY)
  const read = (person_id: number, times: number, hour: number) => {
    for (let n = 1; n <= times; n++)
      run(
        db,
        q.insertInto('recipients').values({
          ...{ person_id, state: 'accepted', at: 1, due: 1, accepted_at: 1 },
          mailing_id: createMailing(
            db,
            { name: 'Past', listId: list, letter: finishedLetter() },
            0,
          ),
          opened_at: today - n * DAY + hour * HOUR,
        }),
      )
  }
  const [owl, lark] = [join('owl'), join('lark')]
  read(owl, 8, 22)
  read(lark, 12, 7)
  const id = addSequence(db, 'Hours', list, 0)
  write(id, { map: insertStep(emptyMap, null, 'wait', { kind: 'wait', ms: HOUR, best: true }) })
  const mail = mailStep(id, 'wait', 'hello')
  start(id)
  const fresh = join('fresh')
  letPeopleIn(db, sequenceById(db, id)!, [owl, lark], engine.time.now)
  await settle()
  const hours = all(db, q.selectFrom('enrolments').select(['person_id', 'due'])).map(
    ({ person_id, due }) => [person_id, new Date(due).getUTCHours()],
  )
  expect(Object.fromEntries(hours)).toEqual({ [owl]: 22, [lark]: 7, [fresh]: 7 })
  engine.time.now = today + DAY + 7 * HOUR
  await settle()
  expect([state(mail, lark), state(mail, fresh)]).toEqual(['queued', 'queued'])
})
