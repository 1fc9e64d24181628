import { beforeEach, expect, test } from 'vitest'
import { makeToken } from '../core/delivery'
import { all, one, q, run, type Database } from '../database'
import { readAccount } from '../database/account'
import { madeUpAccount, mailingOnItsWay, somebody } from '../database/made-up'
import { totalsOf } from '../database/mailings'
import { readRecipient, addReport } from '../database/sending'
import { subscriptionState } from '../database/people'
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

const token = (kind: 'bounce' | 'message', person = tove) =>
  makeToken(Buffer.from(readAccount(db)!.token_key, 'hex'), kind, mailing, person)
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
  expect(readRecipient(db, mailing, tove)).toMatchObject({
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
  expect(readRecipient(db, mailing, tove)).toMatchObject({ state: 'complained' })
  expect(subscriptionState(db, tove, list)).toBe('unsubscribed')
  expect(aside()).toBe('complained')
  expect(all(db, q.selectFrom('evidence').select(['way', 'way_ref']).orderBy('id')).at(-1)).toEqual(
    { way: 'complaint', way_ref: String(mailing) },
  )
})

test('after a bounce a complaint can’t be: states only move forward', async () => {
  await take(bounce())
  expect(await take(complaint())).toBe('already known')
  expect(readRecipient(db, mailing, tove)).toMatchObject({ state: 'bounced' })
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
  expect(readRecipient(db, mailing, tove)).toMatchObject({ state: 'accepted' })
  expect(aside()).toBeNull()
})

test('a delay is only noted', async () => {
  const delayed = bounce().replace('Action: failed', 'Action: delayed').replace('5.1.1', '4.4.1')
  expect(await take(delayed)).toBe('delayed')
  expect(readRecipient(db, mailing, tove)).toMatchObject({ state: 'accepted' })
})
