import { request } from 'node:http'
import { simpleParser } from 'mailparser'
import { dkimVerify } from 'mailauth/lib/dkim/verify.js'
import { createPublicKey } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { makeToken } from '../core/delivery'
import { all, one, q } from '../database'
import { readAccount } from '../database/account'
import { mailingById, totalsOf } from '../database/mailings'
import { subscriptionState } from '../database/people'
import { install, until, type Installation } from './installation'
import { addSubscribers, dueMailing } from './subscribers'

let satchel: Installation
let mailing: number
let key: Buffer
const token = (kind: Parameters<typeof makeToken>[1], person: number, of = mailing) =>
  makeToken(key, kind, of, person)
const ask = (path: string, init?: RequestInit) =>
  fetch(`${satchel.url}${path}`, { redirect: 'manual', ...init })
const acts = () => all(satchel.db, q.selectFrom('acts').selectAll()).length

beforeAll(async () => {
  // Nobody reads in this world: its clock stands still, so what comes in is the test's own doing.
  satchel = await install({ env: { WORLD_CLOCK_URL: 'http://127.0.0.1:9/' } })
  addSubscribers(satchel.db, 12, 'silent.example')
  await Promise.all([satchel.start('world'), satchel.start('web'), satchel.start('engine')])
  mailing = dueMailing(satchel.db)
  key = Buffer.from(readAccount(satchel.db)!.token_key, 'hex')
  await until('it is sent', () => mailingById(satchel.db, mailing)!.state === 'sent')
})
afterAll(() => satchel.stop())

test('messages are whole, signed and have the headers mailbox providers ask for', async () => {
  const source = await (await fetch(`${satchel.worldUrl}/mail/0.eml`)).arrayBuffer()
  const raw = Buffer.from(source)
  const mail = await simpleParser(raw)
  expect(mail.subject).toBe('Force 5 till Sunday')
  expect(mail.text).toMatch(/Hello (there|Reader \d+), five days of wind\./)
  expect(mail.text).toContain('1 Slipway, Sandreach')
  const line = (name: string) => mail.headerLines.find((header) => header.key === name)?.line ?? ''
  expect(line('list-unsubscribe')).toMatch(/<http:\/\/127\.0\.0\.1:\d+\/u\/[a-z2-7]+>,\s+<mailto:/)
  expect(line('list-unsubscribe-post')).toBe('List-Unsubscribe-Post: List-Unsubscribe=One-Click')
  expect(line('list-id')).toContain('<wind-notes.galewright.example>')
  expect(line('feedback-id')).toContain(':galewright.example')
  const account = readAccount(satchel.db)!
  const publicKey = createPublicKey(account.dkim_private_key)
    .export({ type: 'spki', format: 'der' })
    .toString('base64')
  const { results } = await dkimVerify(raw, {
    resolver: async (name: string) => {
      expect(name).toBe('satchel1._domainkey.galewright.example')
      return [[`v=DKIM1; k=rsa; p=${publicKey}`]]
    },
  } as object)
  expect(results.map((result: { status: { result: string } }) => result.status.result)).toEqual([
    'pass',
  ])
})

test('an open is stored when it is answered, a machine’s apart', async () => {
  const before = acts()
  const answer = await ask(`/o/${token('open', 1)}.gif`, {
    headers: { 'user-agent': 'SailMail/4.1' },
  })
  expect(answer.headers.get('content-type')).toBe('image/gif')
  expect(acts()).toBe(before + 1)
  await ask(`/o/${token('open', 2)}.gif`, { headers: { 'user-agent': 'Mozilla/5.0' } })
  await until(
    'both are judged',
    () =>
      totalsOf(satchel.db, mailing)!.opened + totalsOf(satchel.db, mailing)!.machine_opened === 2,
  )
  expect(totalsOf(satchel.db, mailing)).toMatchObject({ opened: 1, machine_opened: 1 })
})

test('a click leads where the letter leads, and nowhere else', async () => {
  const answer = await ask(`/c/${token('click', 1)}/0?to=https://evil.example/`, {
    headers: { 'user-agent': 'SailMail/4.1' },
  })
  expect(answer.status).toBe(302)
  expect(answer.headers.get('location')).toBe('https://galewright.example/forecast')
  for (const path of [
    `/c/${token('click', 1)}/1`,
    `/c/${token('click', 1)}/-1`,
    `/c/${token('click', 1)}/https:%2F%2Fevil.example`,
    `/c/${token('open', 1)}/0`,
    `/c/${token('click', 1, 999)}/0`,
  ])
    expect((await ask(path)).status).toBe(404)
})

test('wrong and forged tokens answer 404 and change nothing', async () => {
  const before = [
    acts(),
    totalsOf(satchel.db, mailing),
    all(satchel.db, q.selectFrom('evidence').selectAll()).length,
  ]
  const good = token('leave', 3)
  const forged = [
    // In its midst: the last sign stands for fewer bits, so another may mean the same.
    good.slice(0, -10) + (good.at(-10) === 'a' ? 'b' : 'a') + good.slice(-9),
    token('open', 3),
    'x',
    '../../etc',
    `${good}a`,
    good.toUpperCase(),
  ]
  for (const one of forged) {
    expect((await ask(`/u/${encodeURIComponent(one)}`)).status).toBe(404)
    expect(
      (await ask(`/u/${encodeURIComponent(one)}`, { method: 'POST', body: 'leave=yes' })).status,
    ).toBe(404)
    if (one !== token('open', 3))
      expect((await ask(`/o/${encodeURIComponent(one)}.gif`)).status).toBe(404)
  }
  expect((await ask('/in/reports/guess', { method: 'POST', body: 'x' })).status).toBe(404)
  expect((await ask('/enter/guess')).status).toBe(404)
  expect([
    acts(),
    totalsOf(satchel.db, mailing),
    all(satchel.db, q.selectFrom('evidence').selectAll()).length,
  ]).toEqual(before)
})

test('leaving takes one press, without cookies or scripts, and can be taken back', async () => {
  const path = `/u/${token('leave', 4)}`
  const page = await (await ask(path)).text()
  expect(page).toContain('Unsubscribe from Wind notes')
  expect(page).not.toContain('<script')
  expect(subscriptionState(satchel.db, 4, 1)).toBe('subscribed')
  await ask(path, { method: 'POST', body: new URLSearchParams({ leave: 'yes' }) })
  expect(subscriptionState(satchel.db, 4, 1)).toBe('unsubscribed')
  expect(totalsOf(satchel.db, mailing)!.left_list).toBe(1)
  await ask(path, { method: 'POST', body: new URLSearchParams({ back: 'yes' }) })
  expect(subscriptionState(satchel.db, 4, 1)).toBe('subscribed')
})

test('one click of the mail program leaves too (RFC 8058), with evidence', async () => {
  await ask(`/u/${token('leave', 5)}`, {
    method: 'POST',
    body: new URLSearchParams({ 'List-Unsubscribe': 'One-Click' }),
    headers: { 'user-agent': 'PocketPost/7.3' },
  })
  const evidence = one(
    satchel.db,
    q.selectFrom('evidence').selectAll().where('person_id', '=', 5).orderBy('id', 'desc'),
  )
  expect(evidence).toMatchObject({
    state: 'unsubscribed',
    way: 'one-click',
    agent: 'PocketPost/7.3',
  })
})

test('a body that is too large is refused by its length, long before all of it has come', async () => {
  const sign = (headers: Record<string, string>) =>
    new Promise<{ status: number; sent: number }>((done) => {
      const { hostname, port } = new URL(satchel.url)
      const asked = request({ hostname, port, path: '/api/session', method: 'POST', headers })
      const piece = Buffer.alloc(65_536, ' ')
      let sent = 0
      let over = false
      const send = () => {
        while (!over && sent < 200_000_000) {
          sent += piece.length
          if (!asked.write(piece)) return void asked.once('drain', send)
        }
      }
      asked.on('response', (answer) => {
        over = true
        done({ status: answer.statusCode!, sent })
        asked.destroy()
      })
      asked.on('error', () => (over = true))
      send()
    })
  const json = { 'content-type': 'application/json' }
  const long = await sign({ ...json, 'content-length': '200000000' })
  expect(long.status).toBe(413)
  expect(long.sent).toBeLessThan(50_000_000)
  expect((await sign({ ...json, 'transfer-encoding': 'chunked' })).status).toBe(411)
})

test('every /api route but those for signing in needs somebody signed in', async () => {
  const here = { 'sec-fetch-site': 'same-origin' }
  for (const path of [
    '/api/people',
    '/api/mailings',
    '/api/today',
    '/api/account',
    '/api/clock',
    '/api/live',
    '/api/find?q=reader',
    '/api/imports/1/rows',
    '/api/imports/1/rows.csv',
    '/api/imports/1/head',
  ])
    expect((await ask(path)).status, path).toBe(401)
  expect((await ask('/api/mailings', { method: 'POST', headers: here })).status).toBe(401)
  expect((await ask('/api/health')).status).toBe(200)
})
