import { once } from 'node:events'
import { createServer, type IncomingMessage, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { simpleParser } from 'mailparser'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import {
  emptyMap,
  insertStep,
  stepsInOrder,
  type Act,
  type HandOver,
  type Happening,
  type NewStep,
  type SequenceMap,
} from '../core/sequences'
import { signedHeaders } from '../core/sign-ups/webhook'
import { DAY, HOUR, MINUTE } from '../core/time'
import { all, q, run, type Database } from '../database'
import { readAccount } from '../database/account'
import { madeUpAccount, somebody } from '../database/made-up'
import { erasePerson, everythingKnown } from '../database/people'
import {
  addSequence,
  advanceDue,
  changeSequence,
  enrolPerson,
  handOverAgain,
  handOverKey,
  lastHandOvers,
  roundsOf,
  sequenceById,
  startSequence,
} from '../database/sequences'
import { handingOver } from './hand-over'
import { madeUpEngine } from './made-up'
import { openOffice, type Office } from './made-up-office'
import { runSequences } from './run-sequences'
import { tellTeam } from './tell-team'

let db: Database
let list: number
let engine: ReturnType<typeof madeUpEngine>
let office: Office
let program: Server
let heard: { headers: IncomingMessage['headers']; body: string }[]
/** What the other program answers, by whom it is about. */
let answers: (address: string) => [status: number, body: string]

beforeEach(async () => {
  ;({ db, list } = madeUpAccount())
  office = await openOffice()
  engine = madeUpEngine(db, { smtpUrl: office.url, nameServer: '127.0.0.1:9' })
  heard = []
  answers = () => [200, '{"result":"added","number":7}']
  program = createServer((request, answer) => {
    let body = ''
    request.on('data', (piece: Buffer) => (body += piece.toString()))
    request.on('end', () => {
      heard.push({ headers: request.headers, body })
      const { person } = JSON.parse(body) as { person: { address: string } }
      const [status, text] = answers(person.address)
      answer.writeHead(status).end(text)
    })
  }).listen(0, '127.0.0.1')
  await once(program, 'listening')
})
afterEach(() => {
  office.close()
  program.close()
})

const url = () => `http://127.0.0.1:${(program.address() as AddressInfo).port}/in`
const hand = (over: Partial<HandOver> = {}): HandOver => ({
  ...{ is: 'hand', url: url(), how: 'both', fields: [], ...over },
})
/** A running sequence that does these things, and then the steps. */
function running(acts: Act[], then: NewStep[] = []): number {
  const id = addSequence(db, 'Desk', list, 0)
  const start = { by: [], again: { is: 'each' as const }, rule: null }
  const steps: NewStep[] = [{ kind: 'do', acts }, ...then, { kind: 'wait', ms: 9 * DAY }]
  const map = steps.reduce<SequenceMap>(
    (map, step, n) => insertStep(map, stepsInOrder(map).at(-1)?.id ?? null, `s${n}`, step),
    { ...emptyMap, start },
  )
  changeSequence(db, sequenceById(db, id)!, { name: 'Desk', listId: list, map }, 1)
  expect(startSequence(db, sequenceById(db, id)!, engine.time.now)).toBe(true)
  return id
}
const joins = (name: string) => somebody(db, name, { list, now: engine.time.now })
async function settle() {
  while (await runSequences(engine));
}
const work = handingOver()
/** One round of handing over, until all that was due has been tried. */
async function handOver() {
  const due = () =>
    all(db, q.selectFrom('hand_overs').select('id').where('due', '<=', engine.clock())).length
  while (due() > 0) {
    await work(engine)
    await new Promise((done) => setTimeout(done, 5))
  }
}
const last = (id: number) => lastHandOvers(db, id, 10)[0]!

test('somebody is handed over once, signed, with the values that are mapped and a key of their own', async () => {
  const fields = [
    { as: 'Name', from: 'first_name' },
    { as: 'Left', from: 'event.product' },
    { as: 'Nothing', from: 'never' },
  ]
  const id = running([hand({ fields, how: 'add' }), { is: 'tag', tag: 'at the desk' }])
  const ada = joins('ada')
  run(db, q.updateTable('people').set({ first_name: 'Ada' }).where('id', '=', ada))
  enrolPerson(db, id, ada, engine.time.now)
  await settle()
  await handOver()
  expect(heard).toHaveLength(1)
  const { headers, body } = heard[0]!
  const key = `${id}.${ada}.0.s0.0.0`
  expect(JSON.parse(body)).toEqual({
    ...{ id: key, how: 'add', at: new Date(engine.time.now).toISOString() },
    sequence: { id, name: 'Desk' },
    person: { id: ada, address: expect.stringContaining('ada@') as string },
    fields: { Name: 'Ada', Left: null, Nothing: null },
  })
  const signed = signedHeaders(handOverKey(db, id), body, engine.hostClock())
  expect(headers['satchel-signature']).toBe(signed['Satchel-Signature'])
  expect(headers['idempotency-key']).toBe(key)
  expect(last(id)).toMatchObject({ taken: 1, said: 'answered 200', due: null })
  expect(JSON.parse(last(id).answer)).toEqual({ result: 'added', number: 7 })
  expect(everythingKnown(db, ada)!.tags).toEqual(['at the desk'])
  // Again by hand, under the same key.
  expect(handOverAgain(db, id, last(id).id, engine.time.now)).toBe(true)
  expect(handOverAgain(db, id, last(id).id, engine.time.now)).toBe(false)
  await handOver()
  expect(heard.map((one) => one.headers['idempotency-key'])).toEqual([key, key])
})

test('what an event carried that let them in goes along', async () => {
  const id = addSequence(db, 'Desk', list, 0)
  const act = hand({ fields: [{ as: 'Left', from: 'event.product' }] })
  const by = [{ is: 'event' as const, name: 'basket' }]
  const start = { by, again: { is: 'each' as const }, rule: null }
  const map = insertStep({ ...emptyMap, start }, null, 's0', { kind: 'do', acts: [act] })
  changeSequence(db, sequenceById(db, id)!, { name: 'Desk', listId: list, map }, 1)
  startSequence(db, sequenceById(db, id)!, engine.time.now)
  const ada = joins('ada')
  for (const product of ['delta', 'sled'])
    run(
      db,
      q.insertInto('events').values({
        ...{ person_id: ada, name: 'basket', at: engine.time.now },
        props: JSON.stringify({ product }),
      }),
    )
  await settle()
  await handOver()
  const left = heard.map(
    ({ body }) => (JSON.parse(body) as { fields: { Left: string } }).fields.Left,
  )
  expect(left.sort()).toEqual(['delta', 'sled'])
})

test('4xx is final; 5xx and silence are tried for a day, and are refused then', async () => {
  const id = running([hand()])
  answers = (address) => (address.startsWith('no') ? [422, 'No.'] : [503, ''])
  const [no, later] = [joins('no'), joins('later')]
  for (const one of [no, later]) enrolPerson(db, id, one, engine.time.now)
  await settle()
  await handOver()
  const of = (person: number) => lastHandOvers(db, id, 9).find((one) => one.person_id === person)!
  expect(of(no)).toMatchObject({ taken: 0, said: 'answered 422', due: null, answer: '{}' })
  expect(of(later)).toMatchObject({ taken: null, due: engine.clock() + MINUTE })
  const began = engine.time.now
  for (let due = of(later).due; due !== null; due = of(later).due) {
    engine.time.now = due
    await handOver()
  }
  expect(of(later)).toMatchObject({ taken: 0, said: 'answered 503' })
  expect(engine.time.now - began).toBeGreaterThan(18 * HOUR)
  expect(engine.time.now - began).toBeLessThanOrEqual(DAY)
})

test('who waits for the answer goes on when it is there, by a way that what it says decides', async () => {
  const answered = (over: object): Happening => ({
    ...({ is: 'answered', step: 's0', taken: true, ...over } as Happening & { is: 'answered' }),
  })
  const where = { property: 'result', test: { is: 'equal' as const, text: 'added' } }
  const wait: NewStep = {
    ...{ kind: 'wait', ms: DAY, ways: [{ next: null }] },
    until: { is: 'happens', what: answered({}) },
  }
  const fork: NewStep = {
    kind: 'fork',
    ways: [
      { when: answered({ where }), next: null },
      { when: answered({ taken: false }), next: null },
    ],
  }
  const id = running([hand()], [wait, fork])
  answers = (address) =>
    address.startsWith('no')
      ? [409, '{"result":"known"}']
      : [200, JSON.stringify({ result: address.startsWith('new') ? 'added' : 'updated' })]
  const people = ['new', 'old', 'no'].map(joins) as [number, number, number]
  for (const one of people) enrolPerson(db, id, one, engine.time.now)
  await settle()
  const step = (person: number) => {
    const [round] = all(
      db,
      q.selectFrom('enrolments').select(['step', 'state']).where('person_id', '=', person),
    )
    return round!.state === 'inside' ? round!.step : round!.state
  }
  expect(people.map(step)).toEqual(['s1', 's1', 's1'])
  await handOver()
  await settle()
  // Who was added is done by the fork's way; who was there goes on; who was refused waits for the time to be over.
  expect(people.map(step)).toEqual(['finished', 's3', 's1'])
  engine.time.now += DAY
  await settle()
  expect(step(people[2])).toBe('finished')
})

test('the team is told in one mail of all who came by, and nobody who is not of the team', async () => {
  const to = readAccount(db)!.sender_address
  const id = running([
    { is: 'tell', to, text: 'Call them.\nBefore noon.' },
    { is: 'tell', to: 'stranger@elsewhere.example', text: 'Here they are.' },
  ])
  const people = ['ada', 'ben'].map(joins)
  for (const one of people) enrolPerson(db, id, one, engine.time.now)
  await settle()
  while (await tellTeam(engine));
  await vi.waitFor(() => expect(office.taken).toHaveLength(1))
  const mail = await simpleParser(office.taken[0]!.raw)
  expect(mail.subject).toBe('2 people came by a step of Desk')
  expect(mail.text).toContain('ada@')
  expect(mail.text).toContain('  Before noon.')
  expect(mail.text).toContain(`/people/${people[1]}`)
  expect(all(db, q.selectFrom('team_tellings').selectAll())).toEqual([])
})

test('an engine that ends between the step and the call hands over all the same; who is erased is not', async () => {
  const id = running([hand()])
  const [ada, ben] = [joins('ada'), joins('ben')]
  for (const one of [ada, ben]) enrolPerson(db, id, one, engine.time.now)
  while (advanceDue(db, engine.time.now) > 0);
  expect(roundsOf(db, id, ada)).toMatchObject([{ state: 'inside' }])
  erasePerson(db, ben, engine.time.now)
  await handOver()
  expect(
    heard.map(({ body }) => (JSON.parse(body) as { person: { id: number } }).person.id),
  ).toEqual([ada])
  expect(everythingKnown(db, ada)!.handed_over).toMatchObject([{ to: url(), taken: true }])
})
