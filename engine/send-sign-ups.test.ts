import { simpleParser } from 'mailparser'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { confirmSending } from '../cases/sign-ups'
import { madeUpForm, seenForm, sendIn } from '../cases/sign-ups/made-up'
import { DAY, HOUR, MINUTE } from '../core/time'
import { all, q, type Database } from '../database'
import { madeUpAccount, somebody } from '../database/made-up'
import { sendingOfLink, signUpCounts } from '../database/sign-ups'
import { madeUpEngine } from './made-up'
import { openOffice, type Office } from './made-up-office'
import { sendSignUps } from './send-sign-ups'

let db: Database
let list: number
let office: Office
let engine: ReturnType<typeof madeUpEngine>

beforeEach(async () => {
  ;({ db, list } = madeUpAccount())
  office = await openOffice()
  // Nobody answers there, so nothing is known against any domain.
  engine = madeUpEngine(db, { smtpUrl: office.url, sign: true, nameServer: '127.0.0.1:9' })
})
afterEach(() => office.close())

const rows = () => all(db, q.selectFrom('sign_up_sendings').selectAll().orderBy('id'))
const send = (address: string, ticked: string[]) =>
  sendIn(db, seenForm(db, madeUpForm([list])), address, ticked, engine.clock())
async function work() {
  while (await sendSignUps(engine));
}
const mails = () => Promise.all(office.taken.map(({ raw }) => simpleParser(raw)))

test('the confirming letter says what was agreed to; its link leads to it, by a press, and the guide follows', async () => {
  send('tove@inkpost.example', ['guide', `list${list}`])
  await work()
  expect(office.taken).toMatchObject([{ from: '', to: 'tove@inkpost.example' }])
  const [mail] = await mails()
  expect(mail!.subject).toBe('Please confirm: was that you?')
  expect(mail!.text).toContain(`– Send me the guide.\n\n– Send me list ${list}.`)
  expect(mail!.headers.get('auto-submitted')).toBe('auto-replied')
  expect(office.taken[0]!.raw.toString()).toMatch(/^DKIM-Signature: .*d=galewright\.example/ms)
  const secret = /\/s\/confirm\/([\w-]{32})\s/.exec(mail!.text!)![1]!
  const sending = sendingOfLink(db, secret)!
  expect(sending).toMatchObject({ state: 'pending', mailed: 1 })
  expect(confirmSending(db, sending, { ip: null, agent: null }, engine.clock())).toBe('confirmed')
  await work()
  const guide = (await mails())[1]!
  expect(guide.subject).toBe('The guide')
  expect(guide.text).toContain('https://galewright.example/guide.pdf')
  engine.time.now += 10 * DAY
  await work()
  expect(office.taken).toHaveLength(2)
  expect(rows()).toMatchObject([{ state: 'confirmed', secret: null, send_due: null }])
})

test('one reminder after two days with the same link; after seven it lapses, and nothing more comes', async () => {
  send('tove@inkpost.example', [`list${list}`])
  await work()
  engine.time.now += 2 * DAY
  await work()
  engine.time.now += 2 * DAY
  await work()
  const [first, second, ...none] = await mails()
  expect(none).toEqual([])
  expect(second!.subject).toBe('A reminder, the only one: Please confirm: was that you?')
  const link = (text: string) => /\/s\/confirm\/([\w-]{32})/.exec(text)![1]
  expect(link(second!.text!)).toBe(link(first!.text!))
  engine.time.now += 3 * DAY
  await work()
  expect(rows()).toMatchObject([{ state: 'lapsed', secret: null }])
  expect(office.taken).toHaveLength(2)
})

test('who is on the list already is told so', async () => {
  somebody(db, 'tove', { list })
  send('tove@inkpost.example', [`list${list}`])
  await work()
  const [mail] = await mails()
  expect(mail!.subject).toBe('You are on the list already')
  expect(mail!.text).not.toContain('/s/confirm/')
})

test('an address that is thrown away after use is kept for a look; let through, it is mailed', async () => {
  send('bot@mailinator.com', [`list${list}`])
  await work()
  expect(office.taken).toEqual([])
  expect(rows()).toMatchObject([{ state: 'for-a-look', doubt: 'thrown', send_due: null }])
})

test('what is put off is tried again, what is refused is not; nothing is reminded that never arrived', async () => {
  send('tove@inkpost.example', [`list${list}`])
  office.objection = { code: 451, text: 'Busy' }
  await work()
  const [waits] = rows()
  expect(waits!.send_due! - engine.clock()).toBeGreaterThanOrEqual(4 * MINUTE)
  office.objection = { code: 550, text: 'No such mailbox' }
  engine.time.now = waits!.send_due!
  await work()
  expect(rows()).toMatchObject([{ send_due: null, answer: '550 No such mailbox' }])
  office.objection = null
  engine.time.now += 3 * DAY
  await work()
  expect(office.taken).toEqual([])
})

test('what came of a form: sent in and confirmed, and who stayed, over those who confirmed long enough ago', async () => {
  send('tove@inkpost.example', [`list${list}`])
  await work()
  confirmSending(db, { id: 1 }, { ip: null, agent: null }, engine.clock())
  const counts = (days: number) => signUpCounts(db, 1, 0, engine.clock() + days * DAY + HOUR)
  expect(counts(1)).toMatchObject({ sentIn: 1, confirmed: 1, stayed30: { of: 0, did: 0 } })
  expect(counts(31)).toMatchObject({ stayed30: { of: 1, did: 1 }, stayed90: { of: 0 } })
})
