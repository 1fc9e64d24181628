import { simpleParser } from 'mailparser'
import { afterEach, beforeEach, expect, test } from 'vitest'
import type { Database } from '../database'
import { madeUpAccount, mailingOnItsWay, somebody } from '../database/made-up'
import { addReply, addReport, repliesOf } from '../database/sending'
import { madeUpEngine } from './made-up'
import { openOffice, type Office } from './made-up-office'
import { passOnReplies } from './pass-on-replies'

let db: Database
let tove: number
let mailing: number
let office: Office

beforeEach(async () => {
  const account = madeUpAccount()
  db = account.db
  tove = somebody(db, 'tove', { list: account.list })
  mailing = mailingOnItsWay(db, account.list)
  office = await openOffice()
})
afterEach(() => office.close())

const engineWithOffice = () => madeUpEngine(db, { smtpUrl: office.url })

const reply = (text: string, at: number, reportId: number | null = null) =>
  addReply(
    db,
    {
      ...{ mailingId: mailing, personId: tove, round: 0, text, reportId },
      from: { name: 'Tove Lind', address: 'tove@inkpost.example' },
      subject: 'Re: kites é',
    },
    at,
  )

test('a reply goes to the sender, from nobody, marked as made by a program; answering it goes to its writer', async () => {
  addReport(db, 'From: tove@inkpost.example\r\n\r\nWhich string? \xe9\r\n', 5)
  const engine = engineWithOffice()
  reply('Which string? é', engine.clock(), 1)
  expect(await passOnReplies(engine)).toBe(true)
  expect(await passOnReplies(engine)).toBe(false)
  expect(office.taken).toMatchObject([{ from: '', to: 'hello@galewright.example' }])
  const mail = await simpleParser(office.taken[0]!.raw)
  expect(mail.subject).toBe('Re: kites é')
  expect(mail.replyTo?.value[0]?.address).toBe('tove@inkpost.example')
  expect(mail.headers.get('auto-submitted')).toBe('auto-generated')
  expect(mail.text).toContain('Which string? é')
  expect(mail.text).toContain(`/people/${tove}`)
  // As it came, to the byte.
  expect(mail.attachments[0]!.content.toString('latin1')).toContain('Which string? \xe9')
  expect(repliesOf(db, tove)[0]!.passed_on_at).not.toBeNull()
})

test('where nobody takes it now it is tried again, where it is refused for good the reply says so', async () => {
  const engine = engineWithOffice()
  reply('Hello', engine.clock())
  office.objection = { code: 451, text: '4.7.1 come again' }
  await passOnReplies(engine)
  expect(repliesOf(db, tove)[0]).toMatchObject({
    passed_on_at: null,
    pass_on_note: expect.stringContaining('come again'),
  })
  expect(await passOnReplies(engine)).toBe(false)
  engine.time.now += 3_600_000
  office.objection = { code: 550, text: '5.1.1 nobody' }
  await passOnReplies(engine)
  expect(repliesOf(db, tove)[0]!.pass_on_note).toContain('hello@galewright.example was refused')
  engine.time.now += 10 * 3_600_000
  expect(await passOnReplies(engine)).toBe(false)
  expect(office.taken).toEqual([])
})

test('more than twenty of one person in a day are kept, and not passed on', async () => {
  const engine = engineWithOffice()
  for (let i = 0; i < 23; i++) reply(`Hello ${i}`, engine.clock() - 30 + i)
  while (await passOnReplies(engine));
  expect(office.taken).toHaveLength(20)
  expect(repliesOf(db, tove)).toHaveLength(23)
  expect(repliesOf(db, tove)[0]!.pass_on_note).toContain('more than 20')
})
