import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { HOUR, MINUTE } from '../core/time'
import { all, q, type Database } from '../database'
import { madeUpAccount, somebody } from '../database/made-up'
import { askOwn, requestOf } from '../database/readers'
import { madeUpEngine } from './made-up'
import { sendRequests } from './send-requests'

let db: Database
let office: SMTPServer | null = null
let taken: { from: string; to: string; raw: Buffer }[]
let objection: { code: number; text: string } | null

beforeEach(() => {
  ;({ db } = madeUpAccount())
  taken = []
  objection = null
})
afterEach(() => {
  office?.close(() => {})
  office = null
})

async function engineWithOffice() {
  office = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    logger: false,
    onRcptTo(_address, _session, done) {
      done(objection && Object.assign(new Error(objection.text), { responseCode: objection.code }))
    },
    onData(stream, { envelope: { mailFrom, rcptTo } }, done) {
      const pieces: Buffer[] = []
      stream.on('data', (piece: Buffer) => pieces.push(piece))
      stream.on('end', () => {
        const from = mailFrom ? mailFrom.address : ''
        taken.push({ from, to: rcptTo[0]!.address, raw: Buffer.concat(pieces) })
        done()
      })
    },
  })
  office.listen(0, '127.0.0.1')
  await once(office.server, 'listening')
  const { port } = office.server.address() as AddressInfo
  return madeUpEngine(db, { smtpUrl: `smtp://127.0.0.1:${port}`, sign: true })
}
const ask = (at: number) =>
  askOwn(
    db,
    {
      personId: somebody(db, 'tove'),
      ...{ kind: 'known', sentTo: 'tove@inkpost.example', language: 'en', mailingId: null },
    },
    at,
  )
const rows = () => all(db, q.selectFrom('own_requests').selectAll())

test('a link is mailed once, signed, to nobody’s return path; and it leads to what was asked', async () => {
  const engine = await engineWithOffice()
  ask(engine.hostClock())
  expect(await sendRequests(engine)).toBe(true)
  expect(await sendRequests(engine)).toBe(false)
  expect(taken).toHaveLength(1)
  const [{ from, to, raw }] = taken as [(typeof taken)[number]]
  expect([from, to]).toEqual(['', 'tove@inkpost.example'])
  const mail = await simpleParser(raw)
  expect(mail.subject).toBe('What Galewright Kites knows of you')
  expect(mail.headers.get('auto-submitted')).toBe('auto-replied')
  expect(raw.toString()).toMatch(/^DKIM-Signature: .*d=galewright\.example/ms)
  const secret = /\/r\/confirm\/([\w-]{32})\s/.exec(mail.text!)![1]!
  expect(requestOf(db, secret, engine.hostClock())).toMatchObject({ kind: 'known' })
  expect(rows()).toMatchObject([{ secret: null, send_due: null }])
})

test('what is put off is tried again while the link works, and what is refused is not', async () => {
  const engine = await engineWithOffice()
  const began = engine.hostClock()
  ask(began)
  objection = { code: 451, text: 'Busy' }
  await sendRequests(engine)
  const [waits] = rows()
  expect(waits).toMatchObject({ tries: 1, answer: expect.stringContaining('Busy') })
  expect(waits!.send_due! - began).toBeGreaterThanOrEqual(4 * MINUTE)
  objection = null
  engine.time.now = waits!.send_due!
  await sendRequests(engine)
  expect(taken).toHaveLength(1)
  objection = { code: 550, text: 'No such mailbox' }
  askOwn(
    db,
    {
      ...{ personId: waits!.person_id, kind: 'erase', sentTo: 'tove@inkpost.example' },
      ...{ language: 'en', mailingId: null },
    },
    engine.time.now,
  )
  await sendRequests(engine)
  expect(rows()[1]).toMatchObject({ send_due: null, secret: null })
})

test('a mail that would come later than its link works is given up', async () => {
  const engine = await engineWithOffice()
  ask(engine.hostClock())
  objection = { code: 451, text: 'Busy' }
  engine.time.now += HOUR - MINUTE
  await sendRequests(engine)
  expect(rows()).toMatchObject([{ send_due: null, secret: null }])
  engine.time.now += HOUR
  expect(await sendRequests(engine)).toBe(false)
})
