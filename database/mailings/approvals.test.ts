import { beforeEach, expect, test } from 'vitest'
import { noVariant, plainPlan } from '../../core/dispatch'
import { startingLetter } from '../../core/letters'
import { readAccount, saveLetterhead, updateAccount, addUser, userByAddress } from '../account'
import { answerApproval, approvalOf, askApproval, withdrawApproval } from './approvals'
import { saveLetter } from '../letters'
import { madeUpAccount } from '../made-up'
import { addList } from '../people'
import { createMailing, mailingById, updateMailing } from './mailings'
import { one, q } from '../query'
import type { Database } from '../query'

let db: Database
let letter: number
let wren: { id: number; name: string }
let tove: { id: number; name: string }
beforeEach(() => {
  let list: number
  ;({ db, list } = madeUpAccount())
  const user = (name: string) => {
    const address = `${name.toLowerCase()}@kites.example`
    addUser(db, { name, address, passwordHash: '', role: 'editor' }, 0)
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

test('whatever changes what goes out makes it lapse, and says what; bringing it back brings it back', () => {
  const id = one(db, q.selectFrom('mailings').select('id').where('letter_id', '=', letter))!.id
  approve()
  const account = readAccount(db)!
  const other = addList(db, { name: 'Other', description: '' }, 0)
  const list = mailingById(db, id)!.list_id
  const changes: [string, () => void, () => void][] = [
    [
      'the letter',
      () => saveLetterhead(db, { ...account.letterhead, ink: '#123456' }),
      () => saveLetterhead(db, account.letterhead),
    ],
    [
      'the list',
      () => updateMailing(db, id, { list_id: other }),
      () => updateMailing(db, id, { list_id: list }),
    ],
    [
      'the sender',
      () => updateAccount(db, { sender_name: 'Somebody' }),
      () => updateAccount(db, { sender_name: account.sender_name }),
    ],
    [
      'how it is to go out',
      () => updateMailing(db, id, { plan: JSON.stringify({ ...plainPlan, holdout: 0.1 }) }),
      () => updateMailing(db, id, { plan: JSON.stringify(plainPlan) }),
    ],
    [
      'who is to get it',
      () => updateMailing(db, id, { past_cap: 1 }),
      () => updateMailing(db, id, { past_cap: 0 }),
    ],
  ]
  for (const [what, change, back] of changes) {
    change()
    expect(approvalOf(db, letter)).toMatchObject({ lapsed: true, lapsedBy: [what] })
    back()
    expect(approvalOf(db, letter)!.lapsed).toBe(false)
  }
  // A subject of a variant goes out, too.
  const variants = [noVariant, { ...noVariant, subject: 'Other' }]
  const test = { of: 'subject', variants, share: 1, measure: 'open', hours: 4, decides: 'itself' }
  updateMailing(db, id, { plan: JSON.stringify({ ...plainPlan, test }) })
  expect(approvalOf(db, letter)!.lapsedBy).toContain('the letter')
  updateMailing(db, id, { plan: JSON.stringify(plainPlan) })
  expect(approvalOf(db, letter, 1)!.lapsedBy).toEqual(['how many get it (1 instead of 0)'])
})

test('the last question counts; it can be taken back', () => {
  approve()
  askApproval(db, letter, { ofId: wren.id, note: '' }, tove, 8)
  expect(approvalOf(db, letter)).toMatchObject({ ofName: 'Wren', verdict: null })
  withdrawApproval(db, letter)
  expect(approvalOf(db, letter)).toBeNull()
})
