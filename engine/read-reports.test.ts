import { beforeEach, expect, test } from 'vitest'
import { addressed, makeToken } from '../core/delivery'
import { engagement } from '../core/standing'
import { DAY } from '../core/time'
import { all, one, q, run, type Database } from '../database'
import { readAccount } from '../database/account'
import { madeUpAccount, mailingOnItsWay, somebody } from '../database/made-up'
import { totalsOf } from '../database/mailings'
import { addReport, readRecipient, repliedCount, repliesOf } from '../database/sending'
import { mergePeople, subscriptionState } from '../database/people'
import { bounceReport, complaintReport } from '../world/post-office/reports'
import { madeUpEngine } from './made-up'
import { readReports } from './read-reports'

let db: Database
let list: number
let tove: number
let mailing: number
let engine: ReturnType<typeof madeUpEngine>

beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  tove = somebody(db, 'tove', { list })
  mailing = mailingOnItsWay(db, list)
  run(db, q.updateTable('recipients').set({ state: 'accepted', accepted_at: 1 }))
  run(db, q.updateTable('mailing_totals').set({ queued: 0, accepted: 1 }))
  engine = madeUpEngine(db)
})

const keyOf = () => Buffer.from(readAccount(db)!.token_key, 'hex')
const token = (kind: 'bounce' | 'message', person = tove) =>
  makeToken(keyOf(), kind, mailing, person)
const bounce = (person = tove) =>
  bounceReport(`b-${token('bounce', person)}@galewright.example`, 'tove@inkpost.example', '<x@y>')
const complaint = () =>
  complaintReport(
    'complaints@galewright.example',
    'tove@inkpost.example',
    `<${token('message')}@galewright.example>`,
  )

async function take(raw: string): Promise<string | null> {
  addReport(db, raw, 5)
  expect(await readReports(engine)).toBe(true)
  expect(await readReports(engine)).toBe(false)
  return all(db, q.selectFrom('reports').select('outcome').orderBy('id')).at(-1)!.outcome
}
const aside = () =>
  one(db, q.selectFrom('set_aside').select(['reason']).where('person_id', '=', tove))?.reason ??
  null

test('a mailbox that is not there: bounced, and never mailed again', async () => {
  expect(await take(bounce())).toBe('bounced')
  expect(readRecipient(db, addressed(mailing, tove))).toMatchObject({
    state: 'bounced',
    answer: 'There is no such mailbox.',
  })
  expect(totalsOf(db, mailing)).toMatchObject({ accepted: 0, bounced: 1 })
  expect(aside()).toBe('bounced')
  expect(subscriptionState(db, tove, list)).toBe('subscribed')
})

test('told twice, counted once', async () => {
  await take(bounce())
  expect(await take(bounce())).toBe('already known')
  expect(totalsOf(db, mailing)).toMatchObject({ bounced: 1 })
})

test('a complaint ends the subscription, with its evidence, and sets aside', async () => {
  expect(await take(complaint())).toBe('complained')
  expect(readRecipient(db, addressed(mailing, tove))).toMatchObject({ state: 'complained' })
  expect(subscriptionState(db, tove, list)).toBe('unsubscribed')
  expect(aside()).toBe('complained')
  expect(all(db, q.selectFrom('evidence').select(['way', 'way_ref']).orderBy('id')).at(-1)).toEqual(
    { way: 'complaint', way_ref: String(mailing) },
  )
})

test('after a bounce a complaint can’t be: states only move forward', async () => {
  await take(bounce())
  expect(await take(complaint())).toBe('already known')
  expect(readRecipient(db, addressed(mailing, tove))).toMatchObject({ state: 'bounced' })
})

test('a forged report, one about nobody, and other mail change nothing', async () => {
  expect(
    await take(
      bounceReport(`b-${'a'.repeat(30)}@galewright.example`, 'tove@inkpost.example', '<x@y>'),
    ),
  ).toBe('not ours')
  // The mark of a message is not taken for that of a return path.
  expect(
    await take(
      bounceReport(`b-${token('message')}@galewright.example`, 'tove@inkpost.example', '<x@y>'),
    ),
  ).toBe('not ours')
  expect(await take(bounce(999))).toBe('already known')
  expect(await take('To: hello@galewright.example\r\nSubject: hi\r\n\r\nLovely kites.\r\n')).toBe(
    'not understood',
  )
  expect(await take('')).toBe('not understood')
  expect(readRecipient(db, addressed(mailing, tove))).toMatchObject({ state: 'accepted' })
  expect(aside()).toBeNull()
})

test('a delay is only noted', async () => {
  const delayed = bounce().replace('Action: failed', 'Action: delayed').replace('5.1.1', '4.4.1')
  expect(await take(delayed)).toBe('delayed')
  expect(readRecipient(db, addressed(mailing, tove))).toMatchObject({ state: 'accepted' })
})

test('a full mailbox has not arrived, and is mailed again; five of them over two weeks end it', async () => {
  const full = (of: number) =>
    bounceReport(
      `b-${makeToken(keyOf(), 'bounce', of, tove)}@galewright.example`,
      'tove@inkpost.example',
      '<x@y>',
    )
      .replace('Status: 5.1.1', 'Status: 5.2.2')
      .replace('550 5.1.1 no such mailbox', '552 5.2.2 over quota')
  const mailings = [mailing, ...Array.from({ length: 5 }, () => mailingOnItsWay(db, list))]
  const days = [0, 3, 6, 9, 12, 15]
  run(db, q.updateTable('recipients').set({ state: 'accepted' }))
  mailings.forEach((id, i) =>
    run(
      db,
      q
        .updateTable('recipients')
        .set({ accepted_at: 1 + days[i]! * DAY })
        .where('mailing_id', '=', id),
    ),
  )
  for (const id of mailings.slice(0, 5)) {
    expect(await take(full(id))).toBe('bounced')
    expect(readRecipient(db, addressed(id, tove))).toMatchObject({ failure: 'mailbox full' })
  }
  // Five in a row, but over twelve days.
  expect(aside()).toBeNull()
  await take(full(mailings[5]!))
  expect(aside()).toBe('bounced')
})

test('one that arrived between ends the row', async () => {
  const mailings = [mailing, ...Array.from({ length: 5 }, () => mailingOnItsWay(db, list))]
  run(db, q.updateTable('recipients').set({ state: 'accepted' }))
  mailings.forEach((id, i) =>
    run(
      db,
      q
        .updateTable('recipients')
        .set({ accepted_at: 1 + i * 5 * DAY })
        .where('mailing_id', '=', id),
    ),
  )
  for (const id of mailings.filter((_, i) => i !== 2))
    await take(
      bounceReport(
        `b-${makeToken(keyOf(), 'bounce', id, tove)}@galewright.example`,
        'tove@inkpost.example',
        '<x@y>',
      )
        .replace('Status: 5.1.1', 'Status: 5.2.2')
        .replace('550 5.1.1 no such mailbox', '552 5.2.2 over quota'),
    )
  expect(aside()).toBeNull()
})

const written = (to: string, text: string, more = '') =>
  `From: Tove Lind <tove@inkpost.example>\r\nTo: ${to}@galewright.example\r\nSubject: Re: kites\r\n${more}\r\n${text}\r\n`

test('an automatic answer to the return path changes nothing, whatever it quotes', async () => {
  const away = written(
    `b-${token('bounce')}`,
    '550 5.1.1 User unknown',
    'Auto-Submitted: auto-replied\r\n',
  )
  expect(await take(away)).toBe('automatic')
  expect(readRecipient(db, addressed(mailing, tove))).toMatchObject({
    state: 'accepted',
    replied_at: null,
  })
  expect(aside()).toBeNull()
})

test('mail to the address for leaving unsubscribes, with its evidence, once', async () => {
  expect(await take(written(`leave-${token('bounce')}`, ''))).toBe('unsubscribed')
  expect(subscriptionState(db, tove, list)).toBe('unsubscribed')
  expect(totalsOf(db, mailing)).toMatchObject({ left_list: 1 })
  const evidence = () => all(db, q.selectFrom('evidence').select(['way', 'way_ref']).orderBy('id'))
  expect(evidence().at(-1)).toEqual({ way: 'unsubscribe mail', way_ref: String(mailing) })
  const before = evidence().length
  await take(written(`leave-${token('bounce')}`, ''))
  expect(evidence()).toHaveLength(before)
  expect(totalsOf(db, mailing)).toMatchObject({ left_list: 1 })
})

test('a reply is kept with its person and mailing, and worth as much as three opens', async () => {
  expect(await take(written(`r-${token('bounce')}`, 'Which string?'))).toBe('reply')
  await take(written(`r-${token('bounce')}`, 'And which kite?'))
  expect(repliesOf(db, tove).map(({ text }) => text)).toEqual(
    expect.arrayContaining(['Which string?', 'And which kite?']),
  )
  expect(repliedCount(db, mailing)).toBe(1)
  const { keenness } = one(
    db,
    q.selectFrom('facts').select('keenness').where('person_id', '=', tove),
  )!
  const at = readRecipient(db, addressed(mailing, tove))!.replied_at!
  expect(engagement(keenness, at)).toBeCloseTo(3)
  expect(subscriptionState(db, tove, list)).toBe('subscribed')
})

test('mail that comes back to somebody who was merged is about whom they have become, over two merges', async () => {
  const second = somebody(db, 'second')
  const third = somebody(db, 'third', { list })
  mergePeople(db, second, tove, 3)
  mergePeople(db, third, second, 4)
  expect(await take(written(`leave-${token('bounce')}`, ''))).toBe('unsubscribed')
  expect(subscriptionState(db, third, list)).toBe('unsubscribed')
  expect(await take(written(`r-${token('bounce')}`, 'Which string?'))).toBe('reply')
  expect(repliesOf(db, third).map(({ text }) => text)).toEqual(['Which string?'])
})

test('a report about a mailing that is no spam after all is only noted', async () => {
  expect(await take(complaint().replace('Feedback-Type: abuse', 'Feedback-Type: not-spam'))).toBe(
    'feedback: not-spam',
  )
  expect(aside()).toBeNull()
})
