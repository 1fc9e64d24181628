import { addressed } from '../../core/delivery'
import { beforeEach, expect, test } from 'vitest'
import { startingLetter } from '../../core/letters'
import { DAY, MINUTE } from '../../core/time'
import { actRecorder, applyVerdict, recordLeaving, unjudgedActs } from './acts'
import { openMemory } from '../connect'
import { addList, changeSubscription, suppress } from '../people'
import {
  createMailing,
  moveMailing,
  recountTotals,
  totalsOf,
  saveLinks,
  linkOf,
  deleteMailing,
  planRecipients,
} from '../mailings'
import { letterOf, saveLetter } from '../letters'
import { limitMail, pauseMail } from '../readers'
import { all, one, q, run, type Database } from '../query'
import { claimsBecomeUncertain, claimsOf, resendUncertain } from './claims'
import { dropRest, moveRecipient, readRecipient } from './recipients'
import { claimSome } from '../made-up'

let db: Database
let list: number
let mailing: number
const by = { act: 'person', way: 'form', wording: 'I want it.' } as const

beforeEach(() => {
  db = openMemory()
  list = addList(db, { name: 'Wind notes', description: '' }, 0)
  for (let i = 1; i <= 10; i++) {
    const normal = `p${i}@inkpost.example`
    run(
      db,
      q.insertInto('people').values({
        address: normal,
        normal,
        domain: 'inkpost.example',
        first_name: null,
        last_name: null,
        joined_at: 0,
        changed_at: 0,
      }),
    )
    changeSubscription(db, i, list, 'subscribed', by, 0)
  }
  mailing = createMailing(db, { name: 'One', listId: list, letter: startingLetter() }, 0)
  moveMailing(db, mailing, ['draft'], 'sending', { started_at: 0 })
  planRecipients(db, mailing, { listId: list, rule: null }, 0)
})

/** The totals are kept as things happen; they must be what counting the rows gives. */
function totals() {
  const { mailing_id: _, ...kept } = totalsOf(db, mailing)!
  const counted = recountTotals(db, mailing)
  expect(kept).toMatchObject(counted)
  const states = [
    'queued',
    'claimed',
    'deferred',
    'uncertain',
    'accepted',
    'failed',
    'dropped',
    'bounced',
    'complained',
  ] as const
  expect(states.reduce((sum, state) => sum + kept[state], 0)).toBe(10)
  return kept
}

test('planning twice mails nobody twice', () => {
  expect(planRecipients(db, mailing, { listId: list, rule: null }, 0)).toBe(0)
  expect(totals().queued).toBe(10)
})

test('two engines never claim the same recipient, and each settles only its own', () => {
  const [a, b] = [claimsOf(db, 'a', mailing), claimsOf(db, 'b', mailing)]
  const [ofA, ofB] = [claimSome(a, 6, 1), claimSome(b, 6, 1)]
  expect(ofA).toHaveLength(6)
  expect(ofB).toHaveLength(4)
  expect(new Set([...ofA, ...ofB].map((one) => one.person_id)).size).toBe(10)
  b.settle(
    ofA.map((one) => ({ personId: one.person_id, round: 0, to: 'accepted', answer: null })),
    2,
  )
  expect(totals()).toMatchObject({ claimed: 10, accepted: 0 })
  a.settle(
    ofA.map((one) => ({ personId: one.person_id, round: 0, to: 'accepted', answer: null })),
    2,
  )
  expect(totals()).toMatchObject({ claimed: 4, accepted: 6 })
})

test('deferred recipients come back when they are due, not before', () => {
  const claims = claimsOf(db, 'a', mailing)
  const [first] = claimSome(claims, 1, 0)
  claims.settle(
    [{ personId: first!.person_id, round: 0, to: 'deferred', answer: 'later', due: 5 * MINUTE }],
    0,
  )
  expect(claimSome(claims, 20, MINUTE)).toHaveLength(9)
  expect(claimSome(claims, 20, MINUTE)).toHaveLength(0)
  const [again] = claimSome(claims, 20, 5 * MINUTE)
  expect(again).toMatchObject({ person_id: first!.person_id, attempts: 2 })
})

test('what a dead engine had claimed is uncertain, and is sent again only by the user’s word', () => {
  claimSome(claimsOf(db, 'dead', mailing), 3, 0)
  const alive = claimsOf(db, 'alive', mailing)
  claimSome(alive, 2, 0)
  expect(claimsBecomeUncertain(db, ['alive'], 9)).toBe(3)
  expect(totals()).toMatchObject({ uncertain: 3, claimed: 2, queued: 5 })
  expect(claimSome(alive, 20, 9)).toHaveLength(5)
  expect(resendUncertain(db, mailing, 10)).toBe(3)
  expect(claimSome(alive, 20, 10)).toHaveLength(3)
})

test('an answer that arrives after all settles what had become uncertain', () => {
  const slow = claimsOf(db, 'slow', mailing)
  const [claimed] = claimSome(slow, 1, 0)
  claimsBecomeUncertain(db, [], 5)
  slow.settle([{ personId: claimed!.person_id, round: 0, to: 'accepted', answer: null }], 6)
  expect(totals()).toMatchObject({ uncertain: 0, accepted: 1 })
})

test('somebody who leaves or is suppressed is dropped before the next claim', () => {
  changeSubscription(db, 3, list, 'unsubscribed', { act: 'person', way: 'unsubscribe link' }, 1)
  suppress(db, 4, 'by-hand', 'asked', 1)
  expect(totals()).toMatchObject({ dropped: 2, queued: 8 })
  const claimed = claimSome(claimsOf(db, 'a', mailing), 20, 2).map((one) => one.person_id)
  expect(claimed).not.toContain(3)
  expect(claimed).not.toContain(4)
})

test('who pauses, or had the one mailing they asked for, is not claimed: a mailing passes, a sequence waits', () => {
  const act = {
    wording: 'Pause for 2 weeks',
    detail: '',
    mailingId: mailing,
    ip: null,
    agent: null,
  }
  const claims = claimsOf(db, 'a', mailing)
  const upcoming = claims.upcoming(20, new Set(), 1)
  pauseMail(db, 3, 14 * DAY, act, 1)
  limitMail(db, 4, 7, act, 1)
  run(db, q.updateTable('facts').set({ last_sent_at: 1 }).where('person_id', '=', 4))
  // They were read before they asked: the claim itself is what counts.
  expect(claims.claim(upcoming, 2).map((one) => one.person_id)).toEqual([
    ...[1, 2, 5, 6, 7, 8, 9, 10],
  ])
  const sequence = claimsOf(db, 'a', mailing, null, true)
  expect(claimSome(sequence, 20, 2)).toEqual([])
  expect(readRecipient(db, addressed(mailing, 3))).toMatchObject({ state: 'queued', due: 14 * DAY })
  expect(readRecipient(db, addressed(mailing, 4))).toMatchObject({
    state: 'queued',
    due: 1 + 7 * DAY,
  })
  run(db, q.updateTable('recipients').set({ due: 2 }).where('state', '=', 'queued'))
  expect(claimSome(claims, 20, 2)).toEqual([])
  expect(readRecipient(db, addressed(mailing, 3))).toMatchObject({ answer: 'paused by themselves' })
  expect(readRecipient(db, addressed(mailing, 4))).toMatchObject({ answer: 'over their own limit' })
  expect(totals()).toMatchObject({ claimed: 8, dropped: 2, queued: 0 })
})

test('at most one a week holds while another mailing of theirs is in conversation', () => {
  limitMail(db, 4, 7, { wording: 'x', detail: '', mailingId: null, ip: null, agent: null }, 1)
  const other = createMailing(db, { name: 'Two', listId: list, letter: startingLetter() }, 0)
  moveMailing(db, other, ['draft'], 'sending', { started_at: 0 })
  planRecipients(db, other, { listId: list, rule: null }, 0)
  expect(claimSome(claimsOf(db, 'a', mailing), 20, 2)).toHaveLength(10)
  const second = claimSome(claimsOf(db, 'a', other), 20, 2).map((one) => one.person_id)
  expect(second).not.toContain(4)
  expect(second).toHaveLength(9)
})

test('cancelling the rest leaves what was sent', () => {
  const claims = claimsOf(db, 'a', mailing)
  claims.settle(
    claimSome(claims, 4, 0).map((one) => ({
      personId: one.person_id,
      round: 0,
      to: 'accepted',
      answer: null,
    })),
    0,
  )
  expect(dropRest(db, mailing, 1)).toBe(6)
  expect(totals()).toMatchObject({ accepted: 4, dropped: 6 })
})

test('no move is made that the states do not have', () => {
  expect(() => moveRecipient(db, addressed(mailing, 1), 'accepted', 'queued', 0)).toThrow()
  expect(moveRecipient(db, addressed(mailing, 1), 'accepted', 'bounced', 0)).toBe(false)
  expect(readRecipient(db, addressed(mailing, 1))!.state).toBe('queued')
})

test('acts are counted once a person, machines apart, and a click implies an open', () => {
  const record = actRecorder(db)
  const act = { mailingId: mailing, agent: 'SailMail', method: 'GET', link: null }
  record([
    { ...act, personId: 1, round: 0, kind: 'open', at: 10 },
    { ...act, personId: 1, round: 0, kind: 'open', at: 20 },
    { ...act, personId: 2, round: 0, kind: 'click', link: 0, at: 30 },
    { ...act, personId: 3, round: 0, kind: 'open', at: 40 },
  ])
  const unjudged = unjudgedActs(db, 1e9, 10)
  expect(unjudged).toHaveLength(4)
  for (const one of unjudged) applyVerdict(db, one, one.person_id === 3 ? 'machine' : 'human')
  recordLeaving(db, addressed(mailing, 2), 50)
  recordLeaving(db, addressed(mailing, 2), 60)
  expect(totals()).toMatchObject({ opened: 2, clicked: 1, machine_opened: 1, left_list: 1 })
  expect(unjudgedActs(db, 1e9, 10)).toHaveLength(0)
  expect(one(db, q.selectFrom('mailing_hours').selectAll())).toMatchObject({
    hour: 0,
    opens: 2,
    clicks: 1,
  })
})

test('the hours of a sequence’s mail begin with each reader’s own', () => {
  const HOUR = 3_600_000
  run(
    db,
    q.insertInto('sequences').values({ id: 1, name: 'Welcome', map: '{}', created_at: 0 } as never),
  )
  run(db, q.updateTable('mailings').set({ sequence_id: 1 }).where('id', '=', mailing))
  const claims = claimsOf(db, 'a', mailing)
  for (const [n, at] of [1 * HOUR, 50 * HOUR].entries()) {
    const [claimed] = claimSome(claims, 1, n)
    claims.settle([{ personId: claimed!.person_id, round: 0, to: 'accepted', answer: null }], at)
    const act = { mailingId: mailing, agent: 'SailMail', method: 'GET', link: null }
    actRecorder(db)([
      { ...act, personId: claimed!.person_id, round: 0, kind: 'open', at: at + 2.5 * HOUR },
    ])
  }
  for (const act of unjudgedActs(db, 1e12, 10)) applyVerdict(db, act, 'human')
  const hours = all(db, q.selectFrom('mailing_hours').select(['hour', 'opens']))
  expect(hours).toEqual([{ hour: 2, opens: 2 }])
})

test('evidence is kept of each change and can never be changed', () => {
  changeSubscription(
    db,
    1,
    list,
    'unsubscribed',
    { act: 'person', way: 'unsubscribe link', ip: '127.0.0.1' },
    5,
  )
  changeSubscription(
    db,
    1,
    list,
    'subscribed',
    { act: 'import', way: 'import', wording: 'I want it.' },
    6,
  )
  const evidence = all(
    db,
    q.selectFrom('evidence').selectAll().where('person_id', '=', 1).orderBy('id'),
  )
  expect(evidence.map(({ state, at, way }) => ({ state, at, way }))).toEqual([
    { state: 'subscribed', at: 0, way: 'form' },
    { state: 'unsubscribed', at: 5, way: 'unsubscribe link' },
  ])
  expect(() => run(db, q.updateTable('evidence').set({ at: 0 }))).toThrow(/never updated/)
})

test('a letter is saved over the version its author saw, and not over another', () => {
  const letter = { ...startingLetter(), subject: 'Force 5' }
  const letterId = one(
    db,
    q.selectFrom('mailings').select('letter_id').where('id', '=', mailing),
  )!.letter_id
  const author = { id: 1, name: 'Wren' }
  expect(saveLetter(db, letterId, letter, 1, author, 1)).toBe(2)
  expect(saveLetter(db, letterId, { ...letter, subject: 'Late' }, 1, author, 2)).toBeNull()
  expect(letterOf(db, letterId)).toMatchObject({ subject: 'Force 5', version: 2 })
})

test('links lead where the letter led when it went out', () => {
  saveLinks(db, mailing, [{ url: 'https://a.example/', blockId: 'b', words: 'go' }])
  expect(linkOf(db, mailing, 0)).toBe('https://a.example/')
  expect(linkOf(db, mailing, 1)).toBeNull()
})

test('only what never went out is deleted', () => {
  expect(deleteMailing(db, mailing)).toBe(false)
  expect(
    deleteMailing(db, createMailing(db, { name: 'x', listId: null, letter: startingLetter() }, 0)),
  ).toBe(true)
})
