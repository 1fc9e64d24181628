import { beforeEach, expect, test } from 'vitest'
import { noVariant, plainPlan, partsOf, type DispatchPlan } from '../../core/dispatch'
import { updateAccount } from '../account'
import { goesOut, happeningOf } from './happening'
import { madeUpAccount, somebody } from '../made-up'
import { audienceOf, createMailing, mailingById, updateMailing } from './mailings'
import { addParts, beginPart, holdOut, partsOfMailing } from './parts'
import { all, q, transact, type Database } from '../query'
import { addSegment, changeSegment } from '../segments'
import { fixVariants } from './variants'
import { startingLetter } from '../../core/letters'

let db: Database
let list: number
let id: number
beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  for (let n = 0; n < 300; n++)
    somebody(db, `p${n}`, { list, values: { zone: n % 3 ? 'Asia/Tokyo' : '' } })
  id = createMailing(db, { name: 'Wind', listId: list, letter: startingLetter() }, 0)
})
const set = (plan: Partial<DispatchPlan>) =>
  updateMailing(db, id, { plan: JSON.stringify({ ...plainPlan, ...plan }) })

test('what is said is exactly what is drawn: who is held out, who is in the test, each variant', () => {
  const variants = [noVariant, { ...noVariant, subject: 'B' }, { ...noVariant, subject: 'C' }]
  const test = {
    of: 'subject',
    variants,
    share: 0.4,
    measure: 'open',
    hours: 4,
    decides: 'itself',
  } as const
  set({ holdout: 0.1, test: { ...test, variants } })
  const said = happeningOf(db, mailingById(db, id)!, null, 1)!
  const mailing = mailingById(db, id)!
  const audience = audienceOf(db, mailing)!
  const plan = { ...plainPlan, holdout: 0.1, test: { ...test, variants } }
  transact(db, () => {
    fixVariants(db, mailing, plan, 'Us', 1)
    addParts(db, id, partsOf(plan))
    expect(holdOut(db, mailing, audience, 0.1, 1)).toBe(said.heldOut)
    expect(beginPart(db, mailing, partsOfMailing(db, id)[0]!, audience, 'Europe/London', 1)).toBe(
      said.test!.people,
    )
  })
  const rows = all(db, q.selectFrom('recipients').select('variant').where('mailing_id', '=', id))
  expect([0, 1, 2].map((no) => rows.filter(({ variant }) => variant === no).length)).toEqual(
    said.test!.each,
  )
  expect(said.mailed + said.heldOut).toBe(said.eligible)
  expect(said.eligible).toBe(300)
})

test('tiers are counted as they will follow, and all are in one', () => {
  set({ pace: 'widening' })
  const { tiers, mailed } = happeningOf(db, mailingById(db, id)!, null, 1)!
  expect(tiers!.reduce((a, b) => a + b)).toBe(mailed)
})

test('a segment that a segment asks is part of what goes out; so is the account’s sender', () => {
  const inner = addSegment(
    db,
    'Inner',
    { kind: 'subscription', listId: list, is: 'on' } as never,
    0,
  )
  const outer = addSegment(db, 'Outer', { kind: 'segment', segmentId: inner }, 0)
  updateMailing(db, id, { rule: JSON.stringify({ kind: 'segment', segmentId: outer }) })
  const before = goesOut(db, mailingById(db, id)!, null)
  changeSegment(db, inner, { name: 'Inner', rule: { kind: 'all', of: [] } }, 1, 2)
  const after = goesOut(db, mailingById(db, id)!, null)
  expect(after).toEqual({ ...before, rule: after.rule })
  expect(after.rule).not.toBe(before.rule)
  updateMailing(db, id, {
    plan: JSON.stringify({ ...plainPlan, sender: { name: '', local: 'wren', replies: '' } }),
  })
  const own = goesOut(db, mailingById(db, id)!, null)
  expect(own.sender).not.toBe(after.sender)
  expect(happeningOf(db, mailingById(db, id)!, null, 1)!.sender).toBe(
    'Galewright Kites <wren@galewright.example>',
  )
  updateMailing(db, id, { plan: JSON.stringify(plainPlan) })
  updateAccount(db, { sender_name: 'Others' })
  expect(goesOut(db, mailingById(db, id)!, null).sender).not.toBe(after.sender)
  updateAccount(db, { pace_per_minute: 60 })
  const paced = goesOut(db, mailingById(db, id)!, null)
  expect(paced).not.toEqual({ ...after, sender: paced.sender })
})
