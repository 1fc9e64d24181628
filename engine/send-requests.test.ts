import { simpleParser } from 'mailparser'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { HOUR, MINUTE } from '../core/time'
import { all, q, type Database } from '../database'
import { madeUpAccount, somebody } from '../database/made-up'
import { askOwn, requestOf } from '../database/readers'
import { madeUpEngine } from './made-up'
import { openOffice, type Office } from './made-up-office'
import { sendRequests } from './send-requests'

let db: Database
let office: Office

beforeEach(async () => {
  ;({ db } = madeUpAccount())
  office = await openOffice()
})
afterEach(() => office.close())

const engineWithOffice = () => madeUpEngine(db, { smtpUrl: office.url, sign: true })
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
  const engine = engineWithOffice()
  ask(engine.hostClock())
  expect(await sendRequests(engine)).toBe(true)
  expect(await sendRequests(engine)).toBe(false)
  expect(office.taken).toHaveLength(1)
  const [{ from, to, raw }] = office.taken as [(typeof office.taken)[number]]
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
  const engine = engineWithOffice()
  const began = engine.hostClock()
  ask(began)
  office.objection = { code: 451, text: 'Busy' }
  await sendRequests(engine)
  const [waits] = rows()
  expect(waits).toMatchObject({ tries: 1, answer: expect.stringContaining('Busy') })
  expect(waits!.send_due! - began).toBeGreaterThanOrEqual(4 * MINUTE)
  office.objection = null
  engine.time.now = waits!.send_due!
  await sendRequests(engine)
  expect(office.taken).toHaveLength(1)
  office.objection = { code: 550, text: 'No such mailbox' }
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
  const engine = engineWithOffice()
  ask(engine.hostClock())
  office.objection = { code: 451, text: 'Busy' }
  engine.time.now += HOUR - MINUTE
  await sendRequests(engine)
  expect(rows()).toMatchObject([{ send_due: null, secret: null }])
  engine.time.now += HOUR
  expect(await sendRequests(engine)).toBe(false)
})
