import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { setTimeout as wait } from 'node:timers/promises'
import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { plainPlan } from '../core/dispatch'
import { wordsIn } from '../core/readers'
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
import { answersByProvider, resultsBy } from '../database/results'
import { addField, suppressPeople } from '../database/people'
import { finishedLetter } from '../tests/subscribers'
import { readAccount, saveLetterhead, updateAccount } from '../database/account'
import { engineNotes } from '../database/jobs'
import { madeUpEngine } from './made-up'
import { recoverClaims } from './recover-claims'
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

test('who is suppressed while it goes out gets none', async () => {
  const ids = readers(40)
  const id = mailingOnItsWay(db, list, { letter: finishedLetter() })
  suppressPeople(db, [ids[39]!], 'asked by telephone', 5)
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

test('a pace that is changed holds at once, for what is on its way as for what begins later', async () => {
  const pace = (perMinute: number | null) => updateAccount(db, { pace_per_minute: perMinute })
  readers(30)
  const first = mailingOnItsWay(db, list, { letter: finishedLetter() })
  const { sending, engine } = engineAt(await openOffice())
  const minute = async () => {
    engine.time.now += 60_000
    const before = taken.length
    for (let i = 0; i < 15; i++) await sending.step()
    return taken.length - before
  }
  pace(4)
  expect(await minute()).toBe(4)
  pace(7)
  expect(await minute()).toBe(7)
  // One that begins later does not bring the pace of its own beginning along, nor does the first keep its.
  const second = mailingOnItsWay(db, list, { letter: finishedLetter() })
  expect(await minute()).toBe(7)
  pace(2)
  expect(await minute()).toBe(2)
  pace(null)
  await stepUntil(sending, () => isSent(first)() && isSent(second)())
  expect(taken).toHaveLength(60)
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

test('a mailing whose letter can’t be made is held with the reason; the one behind it goes', async () => {
  readers(6)
  const evil = 'person.first_name | default: "x" | append: (1..300000000) | size'
  const bad = mailingOnItsWay(db, list, { letter: finishedLetter(`Hello {{ ${evil} }}`) })
  const good = mailingOnItsWay(db, list, { letter: finishedLetter('Wind') })
  const { sending } = engineAt(await openOffice())
  await stepUntil(sending, isSent(good))
  expect(mailingById(db, bad)).toMatchObject({ state: 'held', held_by: 'fault' })
  expect(mailingById(db, bad)!.held_note).toMatch(/can’t be made: A fill-in names one value/)
  expect(totalsOf(db, bad)).toMatchObject({ queued: 6, claimed: 0, accepted: 0 })
  expect(taken).toHaveLength(6)
})

test('what has begun goes on as it was, whatever is changed of letterhead, sender or list meanwhile', async () => {
  readers(12)
  const id = mailingOnItsWay(db, list, { letter: finishedLetter('Wind') })
  const port = await openOffice()
  const first = engineAt(port)
  await stepUntil(first.sending, () => taken.length >= 4)
  moveMailing(db, id, ['sending'], 'held', { held_by: 'hand' })
  await first.sending.step()
  await first.sending.close()
  const account = readAccount(db)!
  saveLetterhead(db, { ...account.letterhead, accent: '#ff00ff', ink: '#00ff00' })
  updateAccount(db, { sender_name: 'Somebody else', postal_address: 'Elsewhere 9' })
  run(db, q.updateTable('lists').set({ public_name: 'Another name' }).where('id', '=', list))
  moveMailing(db, id, ['held'], 'sending', { held_by: null })
  await stepUntil(engineAt(port, 'engine-2').sending, isSent(id))
  const own = /reader\d+|R\d+|[a-z2-7]{16,}|[\w.+-]+@[\w.-]+|boundary="?[^"\r\n]+|--[\w-]+/g
  const bodies = await Promise.all(taken.map(async ({ raw }) => (await simpleParser(raw)).html))
  const looks = new Set(bodies.map((html) => String(html).replace(own, '')))
  expect(looks.size).toBe(1)
  expect([...looks][0]).not.toMatch(/ff00ff|00ff00|Elsewhere/)
  expect(new Set(taken.map(({ raw }) => /^From: .*$/m.exec(raw)![0])).size).toBe(1)
})

test('a mailing with a sender of its own comes from it, and replies go where it says', async () => {
  readers(1)
  const from = async (sender: object, id: number) => {
    updateMailing(db, id, { plan: JSON.stringify({ ...plainPlan, sender }) })
    const { sending } = engineAt(await openOffice())
    await stepUntil(sending, isSent(id))
    return taken.splice(0).map(({ raw }) => ({
      from: /^From: (.*)\r$/m.exec(raw)![1],
      replies: /^Reply-To: (.*)\r$/m.exec(raw)?.[1] ?? null,
    }))
  }
  const next = () => mailingOnItsWay(db, list, { letter: finishedLetter('Wind') })
  expect(await from({ name: 'Wren', local: 'wren', replies: 'kept' }, next())).toEqual([
    {
      from: 'Wren <wren@galewright.example>',
      replies: expect.stringMatching(/^r-[a-z2-7]+@galewright\.example$/),
    },
  ])
  office!.close(() => {})
  expect(await from({ replies: 'desk@galewright.example' }, next())).toEqual([
    { from: 'Galewright Kites <hello@galewright.example>', replies: 'desk@galewright.example' },
  ])
})

test('a second engine that dies at the same message holds its mailing; one death does not', async () => {
  readers(2)
  const id = mailingOnItsWay(db, list, { letter: finishedLetter('Wind') })
  const { engine } = engineAt(9)
  const die = (name: string, what: string) =>
    engineNotes(engine.settings.data, name).begin({ mailing: id, what })
  die('one', '7')
  await recoverClaims(engine)
  expect(mailingById(db, id)).toMatchObject({ state: 'sending', died_at: '7' })
  die('two', '8')
  await recoverClaims(engine)
  expect(mailingById(db, id)!.state).toBe('sending')
  die('three', '8')
  await recoverClaims(engine)
  expect(mailingById(db, id)).toMatchObject({ state: 'held', held_by: 'fault' })
  expect(mailingById(db, id)!.held_note).toMatch(/ended twice while it made this letter/)
})

test('never more are claimed than there are connections, and mailings share them', async () => {
  readers(120)
  const ids = ['One', 'Two', 'Three'].map((subject) =>
    mailingOnItsWay(db, list, { letter: finishedLetter(subject) }),
  )
  const { sending } = engineAt(await openOffice())
  const begun = new Map<number, number>()
  let most = 0
  for (let turn = 0; ids.some((id) => !isSent(id)()); turn++) {
    await sending.step()
    const claimed = all(
      db,
      q.selectFrom('recipients').select('mailing_id').where('state', '=', 'claimed'),
    )
    most = Math.max(most, claimed.length)
    for (const { mailing_id } of claimed) if (!begun.has(mailing_id)) begun.set(mailing_id, turn)
    if (turn > 3_000) throw new Error('It does not come to an end.')
  }
  expect(most).toBeLessThanOrEqual(4)
  // None waits until another is through.
  const order = taken.map(({ raw }) => /^Subject: (\w+)/m.exec(raw)![1])
  for (const subject of ['One', 'Two', 'Three']) expect(order.indexOf(subject)).toBeLessThan(40)
})

test('each reader finds the way out in their own language, where a field says it', async () => {
  addField(db, { key: 'language', name: 'Language', kind: 'text' })
  somebody(db, 'anna@inkpost.example', { list, values: { language: 'Deutsch' } })
  somebody(db, 'ines@inkpost.example', { list, values: { language: 'es-MX' } })
  somebody(db, 'finn@inkpost.example', { list })
  const id = mailingOnItsWay(db, list, { letter: finishedLetter() })
  const { sending } = engineAt(await openOffice())
  await stepUntil(sending, isSent(id))
  const said = new Map(
    await Promise.all(
      taken.map(async ({ to, raw }) => {
        const { html } = await simpleParser(raw)
        const way = /<a href="[^"]*\/u\/[^"]*"[^>]*>([^<]*)</.exec(String(html))
        return [to.split('@')[0]!, way?.[1]] as const
      }),
    ),
  )
  expect(Object.fromEntries(said)).toEqual({
    anna: wordsIn('de').unsubscribe,
    ines: wordsIn('es').unsubscribe,
    finn: wordsIn('en').unsubscribe,
  })
})
