import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { setTimeout as wait } from 'node:timers/promises'
import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { plainPlan } from '../core/dispatch'
import { richText } from '../core/letters/rich-text'
import type { Rule } from '../core/segments'
import { all, q, run, type Database } from '../database'
import { madeUpAccount, mailingOnItsWay, somebody } from '../database/made-up'
import {
  mailingById,
  moveMailing,
  recountTotals,
  totalsOf,
  updateMailing,
} from '../database/mailings'
import { answersByProvider } from '../database/results'
import { resultsBy } from '../database/results-by'
import { setPeopleAside } from '../database/person-changes'
import { finishedLetter } from '../tests/subscribers'
import { madeUpEngine } from './made-up'
import { sender } from './send'

let db: Database
let list: number
let office: SMTPServer | null = null
/** Everything the post office took: to whom, and the message. */
let taken: { to: string; raw: string }[]
/** What it says to a recipient: nothing is yes. */
let objection: (to: string) => { code: number; text: string } | null
const sendings: ReturnType<typeof sender>[] = []

beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  taken = []
  objection = () => null
})
afterEach(async () => {
  for (const sending of sendings.splice(0)) await sending.close()
  office?.close(() => {})
  office = null
})

async function openOffice(port = 0): Promise<number> {
  office = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    logger: false,
    onRcptTo({ address }, _session, done) {
      const no = objection(address)
      done(no ? Object.assign(new Error(no.text), { responseCode: no.code }) : null)
    },
    onData(stream, session, done) {
      const pieces: Buffer[] = []
      stream.on('data', (piece: Buffer) => pieces.push(piece))
      stream.on('end', () => {
        taken.push({
          to: session.envelope.rcptTo[0]!.address,
          raw: Buffer.concat(pieces).toString('latin1'),
        })
        done()
      })
    },
  })
  office.listen(port, '127.0.0.1')
  await once(office.server, 'listening')
  return (office.server.address() as AddressInfo).port
}

function engineAt(port: number, id = 'engine-1') {
  const engine = { ...madeUpEngine(db, { smtpUrl: `smtp://127.0.0.1:${port}` }), id }
  const sending = sender(engine)
  sendings.push(sending)
  return { engine, sending }
}

async function stepUntil(sending: ReturnType<typeof sender>, done: () => boolean) {
  for (let i = 0; i < 400 && !done(); i++) {
    await sending.step()
    await wait(5)
  }
  expect(done()).toBe(true)
}
const readers = (count: number, domain = 'inkpost.example') =>
  Array.from({ length: count }, (_, i) =>
    somebody(db, `reader${i}@${domain}`, { list, values: { first_name: `R${i}` } }),
  )
const isSent = (id: number) => () => mailingById(db, id)!.state === 'sent'
const rows = (id: number) =>
  all(db, q.selectFrom('recipients').selectAll().where('mailing_id', '=', id).orderBy('person_id'))

test('everybody gets one letter of their own, and the counts are those of the rows', async () => {
  readers(30)
  const id = mailingOnItsWay(db, list, {
    letter: finishedLetter('Wind for {{ person.first_name }}'),
  })
  const { sending } = engineAt(await openOffice())
  await stepUntil(sending, isSent(id))
  expect(new Set(taken.map(({ to }) => to)).size).toBe(30)
  expect(taken).toHaveLength(30)
  expect(totalsOf(db, id)).toMatchObject({ accepted: 30, queued: 0, claimed: 0 })
  expect(recountTotals(db, id)).toMatchObject({ accepted: 30 })
  for (const { to, raw } of taken.slice(0, 5)) {
    const mail = await simpleParser(raw)
    expect(mail.subject).toBe(`Wind for R${/\d+/.exec(to)![0]}`)
    expect(mail.text).toContain(`Hello R${/\d+/.exec(to)![0]}`)
  }
  expect(mailingById(db, id)).toMatchObject({ waiting_note: null, finished_at: expect.any(Number) })
})

test('each reader gets the rows that are shown to them, and everyone else the others', async () => {
  readers(6)
  const letter = finishedLetter()
  const third: Rule = { kind: 'field', key: 'first_name', test: { is: 'equal', text: 'R3' } }
  const rows = (['Only for R3', 'For everyone else'] as const).map((words, i) => ({
    id: `some${i}`,
    shownTo: i === 0 ? { rule: third } : ({ rest: true } as const),
    columns: [
      { share: 1, blocks: [{ id: `t${i}`, kind: 'text' as const, text: richText(words) }] },
    ],
  }))
  letter.document = { ...letter.document, rows: [...rows, ...letter.document.rows] }
  const id = mailingOnItsWay(db, list, { letter })
  const { sending } = engineAt(await openOffice())
  await stepUntil(sending, isSent(id))
  for (const { to, raw } of taken) {
    const { text, html } = await simpleParser(raw)
    const [mine, notMine] = to.startsWith('reader3')
      ? ['Only for R3', 'For everyone else']
      : ['For everyone else', 'Only for R3']
    expect(text).toContain(mine)
    expect(html).toContain(mine)
    expect(text + String(html)).not.toContain(notMine)
    expect(Math.max(...raw.split('\r\n').map((line) => line.length))).toBeLessThanOrEqual(998)
  }
  expect(taken).toHaveLength(6)
  expect(
    resultsBy(db, id, 'rendition', 0)!.map(({ name, recipients }) => [name, recipients]),
  ).toEqual([
    ['everyone else', 5],
    ['"First name" is "R3"', 1],
  ])
})

test('refused for good, refused for now, and taken: each ends up in its state', async () => {
  readers(3)
  objection = (to) =>
    to.startsWith('reader0')
      ? { code: 550, text: '5.1.1 no such mailbox' }
      : to.startsWith('reader1')
        ? { code: 451, text: '4.7.1 come again later' }
        : null
  const id = mailingOnItsWay(db, list, { letter: finishedLetter() })
  const { sending, engine } = engineAt(await openOffice())
  const states = () => rows(id).map(({ state }) => state)
  await stepUntil(sending, () => states().join() === 'failed,deferred,accepted')
  const [failed, deferred] = rows(id)
  expect(failed!.answer).toBe('There is no such mailbox.')
  expect(deferred!.due).toBeGreaterThan(engine.time.now)
  expect(mailingById(db, id)!.state).toBe('sending')
  // Before it is due again nobody asks; then it is taken.
  objection = () => null
  await sending.step()
  expect(states()[1]).toBe('deferred')
  engine.time.now = deferred!.due
  await stepUntil(sending, isSent(id))
  expect(rows(id)[1]).toMatchObject({ state: 'accepted', attempts: 2 })
})

test('what each provider answered is told in words', async () => {
  somebody(db, 'full@oldmill.example', { list })
  somebody(db, 'fine@inkpost.example', { list })
  objection = (to) => (to.startsWith('full') ? { code: 552, text: '5.2.2 mailbox full' } : null)
  const id = mailingOnItsWay(db, list, { letter: finishedLetter() })
  const { sending } = engineAt(await openOffice())
  await stepUntil(sending, isSent(id))
  expect(answersByProvider(db, id)).toEqual([
    { domain: 'oldmill.example', state: 'failed', answer: expect.stringMatching(/full/i), n: 1 },
  ])
})

test('given up after two days of “come again”', async () => {
  readers(1)
  objection = () => ({ code: 451, text: '4.7.1 come again later' })
  const id = mailingOnItsWay(db, list, { letter: finishedLetter() })
  const { sending, engine } = engineAt(await openOffice())
  for (let i = 0; i < 60 && mailingById(db, id)!.state !== 'sent'; i++) {
    await sending.step()
    await wait(5)
    engine.time.now = Math.max(engine.time.now, rows(id)[0]!.due)
  }
  expect(rows(id)[0]).toMatchObject({
    state: 'failed',
    answer: expect.stringContaining('Given up after two days.'),
  })
  expect(taken).toEqual([])
})

test('a post office that is down: the mailing says so, waits, and goes on by itself', async () => {
  readers(5)
  const port = await openOffice()
  await new Promise<void>((done) => office!.close(() => done()))
  office = null
  const id = mailingOnItsWay(db, list, { letter: finishedLetter() })
  const { sending, engine } = engineAt(port)
  await stepUntil(sending, () => mailingById(db, id)!.waiting_note !== null)
  expect(mailingById(db, id)!.waiting_note).toMatch(/does not answer .* goes on by itself/)
  await stepUntil(sending, () => rows(id).every(({ state }) => state === 'queued'))
  await openOffice(port)
  engine.time.now += 5_000
  await stepUntil(sending, isSent(id))
  expect(taken).toHaveLength(5)
  expect(mailingById(db, id)!.waiting_note).toBeNull()
})

test('paused in the middle, nobody more is claimed; resumed, the rest is mailed once', async () => {
  readers(60)
  const id = mailingOnItsWay(db, list, { letter: finishedLetter() })
  const { sending } = engineAt(await openOffice())
  await stepUntil(sending, () => taken.length > 0)
  moveMailing(db, id, ['sending'], 'held', { held_by: 'hand' })
  await stepUntil(sending, () => !rows(id).some(({ state }) => state === 'claimed'))
  const after = taken.length
  for (let i = 0; i < 5; i++) await sending.step()
  expect(taken).toHaveLength(after)
  expect(after).toBeLessThan(60)
  moveMailing(db, id, ['held'], 'sending', { held_by: null })
  await stepUntil(sending, isSent(id))
  expect(new Set(taken.map(({ to }) => to)).size).toBe(60)
  expect(taken).toHaveLength(60)
})

test('two engines share a mailing and nobody gets two letters', async () => {
  readers(80)
  const id = mailingOnItsWay(db, list, { letter: finishedLetter() })
  const port = await openOffice()
  const [one, two] = [engineAt(port, 'one'), engineAt(port, 'two')]
  for (let i = 0; i < 400 && !isSent(id)(); i++) {
    await Promise.all([one.sending.step(), two.sending.step()])
    await wait(2)
  }
  expect(mailingById(db, id)!.state).toBe('sent')
  expect(taken).toHaveLength(80)
  expect(new Set(taken.map(({ to }) => to)).size).toBe(80)
})

test('who is set aside while it goes out gets none', async () => {
  const ids = readers(40)
  const id = mailingOnItsWay(db, list, { letter: finishedLetter() })
  setPeopleAside(db, [ids[39]!], 'asked by telephone', 5)
  const { sending } = engineAt(await openOffice())
  await stepUntil(sending, isSent(id))
  expect(taken.map(({ to }) => to)).not.toContain('reader39@inkpost.example')
  expect(totalsOf(db, id)).toMatchObject({ accepted: 39, dropped: 1 })
})

test('the pace holds: no more a minute than the account allows', async () => {
  run(db, q.updateTable('account').set({ pace_per_minute: 10 }))
  readers(20)
  const id = mailingOnItsWay(db, list, { letter: finishedLetter() })
  const { sending, engine } = engineAt(await openOffice())
  for (let i = 0; i < 10; i++) await sending.step()
  expect(taken).toHaveLength(10)
  engine.time.now += 18_000
  for (let i = 0; i < 10; i++) await sending.step()
  expect(taken).toHaveLength(13)
  engine.time.now += 60_000
  await stepUntil(sending, isSent(id))
  expect(taken).toHaveLength(20)
})

test('a provider that is to be spared gets its pace, and the others do not wait behind it', async () => {
  for (let i = 0; i < 8; i++) somebody(db, `slow${i}@oldmill.example`, { list })
  for (let i = 0; i < 8; i++) somebody(db, `quick${i}@inkpost.example`, { list })
  const port = await openOffice()
  const engine = madeUpEngine(db, { smtpUrl: `smtp://127.0.0.1:${port}` })
  const id = mailingOnItsWay(db, list, { letter: finishedLetter(), now: engine.time.now })
  const providers = [{ domain: 'oldmill.example', perMinute: 3 }]
  updateMailing(db, id, { plan: JSON.stringify({ ...plainPlan, providers }) })
  const sending = sender(engine)
  sendings.push(sending)
  const sent = (at: string) => taken.filter(({ to }) => to.endsWith(at)).length
  for (let i = 0; i < 40; i++) await sending.step()
  expect([sent('oldmill.example'), sent('inkpost.example')]).toEqual([3, 8])
  for (let minute = 1; sent('oldmill.example') < 8; minute++) {
    expect(minute).toBeLessThan(4)
    engine.time.now += 60_000
    for (let i = 0; i < 20; i++) await sending.step()
    expect(sent('oldmill.example')).toBeLessThanOrEqual(3 + 3 * minute)
  }
  expect(mailingById(db, id)!.state).toBe('sent')
})
