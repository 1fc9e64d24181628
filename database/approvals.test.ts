import { beforeEach, expect, test } from 'vitest'
import { startingLetter } from '../core/letters'
import { answerApproval, approvalOf, askApproval, withdrawApproval } from './approvals'
import { saveLetter } from './letter-history'
import { madeUpAccount } from './made-up'
import { createMailing, mailingById } from './mailings'
import { addUser, userByAddress } from './users'
import type { Database } from './query'

let db: Database
let letter: number
let wren: { id: number; name: string }
let tove: { id: number; name: string }
beforeEach(() => {
  let list: number
  ;({ db, list } = madeUpAccount())
  const user = (name: string) => {
    const address = `${name.toLowerCase()}@kites.example`
    addUser(db, { name, address, passwordHash: '', role: 'member' }, 0)
    return { id: userByAddress(db, address)!.id, name }
  }
  wren = user('Wren')
  tove = user('Tove')
  const mailing = createMailing(db, { name: 'Wind', listId: list, letter: startingLetter() }, 0)
  letter = mailingById(db, mailing)!.letter_id
  expect(approvalOf(db, letter)).toBeNull()
  askApproval(db, letter, { ofId: tove.id, note: 'Is the date right?' }, wren, 3)
})
const approve = (by = tove, sawVersion = 1) =>
  answerApproval(db, letter, { verdict: 'approved', words: 'Yes.', sawVersion }, by, 5)

test('who was asked answers; nobody else does', () => {
  expect(approvalOf(db, letter)).toMatchObject({ ofName: 'Tove', askedBy: 'Wren', verdict: null })
  expect(approve(wren)).toBe(false)
  expect(approve()).toBe(true)
  expect(approvalOf(db, letter)).toMatchObject({
    verdict: 'approved',
    words: 'Yes.',
    answeredAt: 5,
    lapsed: false,
  })
})

test('an approval lapses when the letter changes, and is given anew for what it is now', () => {
  approve()
  saveLetter(db, letter, { ...startingLetter(), subject: 'Wind' }, 1, wren, 6)
  expect(approvalOf(db, letter)).toMatchObject({ verdict: 'approved', lapsed: true })
  expect(approve(tove, 1)).toBe(false)
  expect(approve(tove, 2)).toBe(true)
  expect(approvalOf(db, letter)!.lapsed).toBe(false)
})

test('the last question counts; it can be taken back', () => {
  approve()
  askApproval(db, letter, { ofId: wren.id, note: '' }, tove, 8)
  expect(approvalOf(db, letter)).toMatchObject({ ofName: 'Wren', verdict: null })
  withdrawApproval(db, letter)
  expect(approvalOf(db, letter)).toBeNull()
})
