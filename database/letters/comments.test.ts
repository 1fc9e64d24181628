import { beforeEach, expect, test } from 'vitest'
import { startingLetter } from '../../core/letters'
import { addComment, commentsOn, deleteComment, resolveComment } from './comments'
import { madeUpAccount } from '../made-up'
import { createMailing, deleteMailing, mailingById } from '../mailings'
import { all, q, type Database } from '../query'

const wren = { id: 1, name: 'Wren' }
const tove = { id: 2, name: 'Tove' }
let db: Database
let mailing: number
let letter: number
beforeEach(() => {
  let list: number
  ;({ db, list } = madeUpAccount())
  mailing = createMailing(db, { name: 'Wind', listId: list, letter: startingLetter() }, 0)
  letter = mailingById(db, mailing)!.letter_id
})
const say = (text: string, by = wren, answerTo: number | null = null, at = 5) =>
  addComment(db, letter, { blockId: 'title', text, answerTo }, by, at)

test('what is said stands with its block and its answers, the oldest first', () => {
  const first = say('Too long?')!
  say('Another thing', tove, null, 6)
  say('I think not', tove, first, 7)
  expect(commentsOn(db, letter)).toEqual([
    {
      id: first,
      blockId: 'title',
      at: 5,
      byName: 'Wren',
      text: 'Too long?',
      resolved: null,
      answers: [{ id: first + 2, at: 7, byName: 'Tove', text: 'I think not' }],
    },
    expect.objectContaining({ byName: 'Tove', text: 'Another thing', answers: [] }),
  ])
})

test('it is resolved by somebody, opened again, and by an answer, too', () => {
  const id = say('Too long?')!
  const resolved = () => commentsOn(db, letter)[0]!.resolved
  expect(resolveComment(db, letter, id, true, tove, 9)).toBe(true)
  expect(resolved()).toEqual({ at: 9, by: 'Tove' })
  resolveComment(db, letter, id, false, wren, 10)
  expect(resolved()).toBeNull()
  resolveComment(db, letter, id, true, tove, 11)
  say('Still too long', wren, id)
  expect(resolved()).toBeNull()
})

test('one answers a comment, not an answer, and none of another letter', () => {
  const id = say('Too long?')!
  const answer = say('No', tove, id)!
  expect(say('Yes', wren, answer)).toBeNull()
  expect(say('Yes', wren, 999)).toBeNull()
  expect(addComment(db, letter + 1, { blockId: 'x', text: 'y', answerTo: id }, wren, 0)).toBeNull()
  expect(resolveComment(db, letter + 1, id, true, wren, 0)).toBe(false)
  expect(commentsOn(db, letter)[0]!.answers).toHaveLength(1)
})

test('one takes back only what one has said oneself; its answers go with it', () => {
  const id = say('Too long?')!
  say('No', tove, id)
  expect(deleteComment(db, letter, id, tove)).toBe(false)
  expect(deleteComment(db, letter, id, wren)).toBe(true)
  expect(commentsOn(db, letter)).toEqual([])
  expect(all(db, q.selectFrom('comments').select('id'))).toEqual([])
})

test('comments go with their letter', () => {
  say('Too long?')
  deleteMailing(db, mailing)
  expect(all(db, q.selectFrom('comments').select('id'))).toEqual([])
})
