import { beforeEach, expect, test } from 'vitest'
import {
  defaultLetterhead,
  emptyLetter,
  newBlock,
  stampContent,
  type Block,
} from '../../core/letters'
import { blocksOf, rowOf } from '../../core/letters/document'
import { saveLetterhead } from '../account'
import {
  addLetterhead,
  changeLetterhead,
  chooseLetterhead,
  letterheadIdOf,
  letterheadOf,
  letterheads,
  setLetterheadDeleted,
  wholeLetterOf,
} from './letterheads'
import { madeUpAccount } from '../made-up'
import { createMailing, mailingById } from '../mailings'
import { letterOf } from './letter'
import { addStamp, setStampDeleted } from './stamps'
import type { Database } from '../query'

let db: Database
let letter: number
const red = { ...defaultLetterhead, accent: '#aa0000' }
beforeEach(() => {
  let list: number
  ;({ db, list } = madeUpAccount())
  const id = createMailing(db, { name: 'Wind', listId: list, letter: emptyLetter() }, 0)
  letter = mailingById(db, id)!.letter_id
})

test('a letter is in the account’s own letterhead until it is put in another', () => {
  expect(letterheadOf(db, letter).accent).toBe(defaultLetterhead.accent)
  const id = addLetterhead(db, 'Workshop', red, 1)
  chooseLetterhead(db, letter, id)
  expect(letterheadOf(db, letter).accent).toBe('#aa0000')
  changeLetterhead(db, id, { name: 'Loft', look: { ...red, size: 17 } })
  expect(letterheadOf(db, letter).size).toBe(17)
  expect(letterheads(db)).toMatchObject([{ id, name: 'Loft' }])
  expect(changeLetterhead(db, 99, { name: 'x' })).toBe(false)
})

test('one that is taken away gives its letters back to the usual one, and takes them again', () => {
  const id = addLetterhead(db, 'Workshop', red, 1)
  chooseLetterhead(db, letter, id)
  setLetterheadDeleted(db, id, 5)
  expect(letterheads(db)).toEqual([])
  expect(letterheadIdOf(db, letter)).toBeNull()
  expect(letterheadOf(db, letter).accent).toBe(defaultLetterhead.accent)
  setLetterheadDeleted(db, id, null)
  expect(letterheadIdOf(db, letter)).toBe(id)
})

test('its stamps stand above everything and above the footer, for readers only', () => {
  const content = (label: string) =>
    stampContent(rowOf({ ...newBlock('button', 'x'), label } as Block))
  const head = addStamp(db, 'Head', content('Above'), 0)
  const foot = addStamp(db, 'Foot', content('Below'), 0)
  saveLetterhead(db, { ...defaultLetterhead, head, foot })
  const labels = () =>
    blocksOf(wholeLetterOf(db, letter).document).map((block) =>
      block.kind === 'button' ? block.label : block.kind,
    )
  expect(labels()).toEqual(['Above', 'Below', 'footer'])
  expect(letterOf(db, letter).document.rows).toHaveLength(1)
  setStampDeleted(db, head, 3)
  expect(labels()).toEqual(['Below', 'footer'])
})
