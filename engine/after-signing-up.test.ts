import { once } from 'node:events'
import { createServer, type IncomingMessage, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { simpleParser } from 'mailparser'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { confirmSending } from '../cases/sign-ups'
import { madeUpForm, seenForm, sendIn } from '../cases/sign-ups/made-up'
import { readToken } from '../core/delivery'
import type { SignUpForm } from '../core/sign-ups'
import { signedHeaders } from '../core/sign-ups/webhook'
import { DAY, HOUR, MINUTE } from '../core/time'
import { all, q, type Database } from '../database'
import { readAccount } from '../database/account'
import { madeUpAccount } from '../database/made-up'
import { addFile, callAgain, hookKey, lastCalls } from '../database/sign-ups'
import { webhookCaller } from './call-webhooks'
import { madeUpEngine } from './made-up'
import { openOffice, type Office } from './made-up-office'
import { sendSignUps } from './send-sign-ups'
import { tellTeam } from './tell-team'

let db: Database
let list: number
let office: Office
let engine: ReturnType<typeof madeUpEngine>
let program: Server
let heard: { headers: IncomingMessage['headers']; body: string }[]
let status: number

beforeEach(async () => {
  ;({ db, list } = madeUpAccount())
  office = await openOffice()
  engine = madeUpEngine(db, { smtpUrl: office.url, nameServer: '127.0.0.1:9' })
  heard = []
  status = 200
  program = createServer((request, answer) => {
    let body = ''
    request.on('data', (piece: Buffer) => (body += piece.toString()))
    request.on('end', () => {
      heard.push({ headers: request.headers, body })
      answer.writeHead(status).end()
    })
  }).listen(0, '127.0.0.1')
  await once(program, 'listening')
})
afterEach(() => {
  office.close()
  program.close()
})

const hook = () => `http://127.0.0.1:${(program.address() as AddressInfo).port}/hook`
/** So many people send a form in and confirm. */
function signUps(many: number, over: Partial<SignUpForm>) {
  const seen = seenForm(db, madeUpForm([list], over))
  for (let i = 1; i <= many; i++) {
    sendIn(db, seen, `somebody${i}@inkpost.example`, [`list${list}`, 'guide'], engine.clock(), {
      values: { first_name: `Somebody ${i}` },
    })
    confirmSending(db, { id: i }, { ip: null, agent: null }, engine.clock())
  }
}
const call = () => lastCalls(db, 1, 10)[0]!

test('a webhook is called signed, with a time of its own; what it does not take is tried again', async () => {
  signUps(1, { webhook: hook() })
  const work = webhookCaller()
  status = 503
  await work(engine)
  await vi.waitFor(() => expect(call().answer).toBe('answered 503'))
  expect(call()).toMatchObject({ taken: 0, tries: 1, due: engine.clock() + MINUTE })
  await work(engine)
  expect(heard).toHaveLength(1)
  status = 204
  engine.time.now += MINUTE
  await work(engine)
  await vi.waitFor(() => expect(call()).toMatchObject({ taken: 1, due: null, tries: 2 }))
  for (const [i, { headers, body }] of heard.entries()) {
    const at = engine.clock() - (1 - i) * MINUTE
    const signed = signedHeaders(hookKey(db, 1), body, at)
    expect(headers['satchel-signature']).toBe(signed['Satchel-Signature'])
    expect(headers['satchel-time']).toBe(signed['Satchel-Time'])
    expect(headers['content-type']).toBe('application/json')
    expect(JSON.parse(body)).toMatchObject({ person: { address: 'somebody1@inkpost.example' } })
  }
  expect(callAgain(db, 1, call().id, engine.clock())).toBe(true)
  await work(engine)
  await vi.waitFor(() => expect(heard).toHaveLength(3))
})

test('after a day it is given up, and says what was answered last', async () => {
  signUps(1, { webhook: hook() })
  const work = webhookCaller()
  status = 500
  for (let tries = 1; call().due !== null; tries++) {
    engine.time.now = call().due!
    await work(engine)
    await vi.waitFor(() => expect(call().tries).toBe(tries))
  }
  expect(call()).toMatchObject({ taken: 0, answer: 'answered 500' })
  expect(engine.clock() - call().at).toBeGreaterThan(DAY - 6 * HOUR)
})

test('nothing in a private network is called', async () => {
  engine.settings.mayReach = []
  signUps(1, { webhook: hook() })
  await webhookCaller()(engine)
  await vi.waitFor(() => expect(call().answer).toBe('it is no address on the public internet'))
  expect(heard).toEqual([])
})

test('the team gets a mail about each who confirms', async () => {
  signUps(2, { tell: { how: 'each', to: 'wren@galewright.example' } })
  while (await tellTeam(engine));
  expect(office.taken.map(({ to }) => to)).toEqual(
    Array.from({ length: 2 }, () => 'wren@galewright.example'),
  )
  const mail = await simpleParser(office.taken[0]!.raw)
  expect(mail.subject).toBe('somebody1@inkpost.example signed up: Twelve beaches')
  expect(mail.text).toContain('First name: Somebody 1')
  expect(mail.text).toContain('https://mail.galewright.example/people/')
  expect(mail.headers.get('auto-submitted')).toBe('auto-generated')
})

test('or one a day with all of them; where no server takes it, later', async () => {
  signUps(3, { tell: { how: 'daily', to: 'wren@galewright.example' } })
  while (await tellTeam(engine));
  expect(office.taken).toEqual([])
  engine.time.now += DAY
  office.objection = { code: 451, text: 'Busy' }
  while (await tellTeam(engine));
  expect(office.taken).toEqual([])
  office.objection = null
  engine.time.now += HOUR
  while (await tellTeam(engine));
  expect(office.taken).toHaveLength(1)
  const mail = await simpleParser(office.taken[0]!.raw)
  expect(mail.subject).toBe('3 people signed up: Twelve beaches')
  for (const i of [1, 2, 3]) expect(mail.text).toContain(`somebody${i}@inkpost.example`)
})

test('a promised file is mailed by a link of one’s own, which names the file and who asked for it', async () => {
  const file = { name: 'beaches.pdf', mime: 'application/pdf', bytes: Buffer.from('%PDF') }
  const fileId = addFile(db, file, 0)
  signUps(1, { promised: { url: '', fileId, name: { en: 'The guide' } } })
  while (await sendSignUps(engine));
  const mail = await simpleParser(office.taken[0]!.raw)
  const token = /\/s\/file\/([a-z2-7]+)/.exec(mail.text!)![1]!
  const key = Buffer.from(readAccount(db)!.token_key, 'hex')
  expect(readToken({ key, shortUpTo: -1 }, 'file', token)).toEqual({
    ...{ mailingId: fileId, personId: 1, round: 0 },
  })
  expect(all(db, q.selectFrom('sign_up_sendings').select('state'))).toEqual([
    { state: 'confirmed' },
  ])
})
