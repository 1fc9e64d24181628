import { beforeEach, expect, test } from 'vitest'
import { newBlock, stampContent, stampRow, type Block, type Letter } from '../../core/letters'
import { emptyLetter, rowOf } from '../../core/letters/document'
import { letterVersions, saveLetter } from './history'
import { madeUpAccount } from '../made-up'
import { createMailing, mailingById, moveMailing } from '../mailings'
import { letterOf } from './letter'
import { keepTemplate, ownTemplateLetter, ownTemplates, setTemplateDeleted } from './own-templates'
import {
  addStamp,
  changeStamp,
  readStampContent,
  readStamps,
  renameStamp,
  setStampDeleted,
  stampById,
} from './stamps'
import type { Database } from '../query'

const wren = { id: 1, name: 'Wren' }
const saying = (label: string) =>
  stampContent(rowOf({ ...newBlock('button', 'x'), label } as Block))
let db: Database
let list: number
let stamp: number
beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  stamp = addStamp(db, 'Find us', saying('The shop'), 1)
})

function withStamp(): Letter {
  const letter = emptyLetter()
  const rows = [stampRow('a', stamp, saying('The shop')), ...letter.document.rows]
  return { ...letter, document: { ...letter.document, rows } }
}
const mailing = (name: string, letter = withStamp()) =>
  createMailing(db, { name, listId: list, letter }, 0)
const letter = (id: number) => letterOf(db, mailingById(db, id)!.letter_id)
const label = (id: number) => letter(id).document.rows[0]!.columns[0]!.blocks[0]

test('a change follows into every letter that has not gone out, and into its history', () => {
  const draft = mailing('Draft')
  const planned = mailing('Planned')
  moveMailing(db, planned, ['draft'], 'scheduled', { scheduled_at: 99 })
  const sent = mailing('Sent')
  moveMailing(db, sent, ['draft'], 'sent', { started_at: 5 })
  const without = mailing('Without', emptyLetter())
  expect(changeStamp(db, stamp, saying('The new shop'), 1, wren, 9)).toEqual([
    { id: planned, name: 'Planned' },
    { id: draft, name: 'Draft' },
  ])
  for (const id of [draft, planned]) expect(label(id)).toMatchObject({ label: 'The new shop' })
  expect(label(sent)).toMatchObject({ label: 'The shop' })
  expect(letter(without).version).toBe(1)
  expect(letterVersions(db, mailingById(db, draft)!.letter_id)).toMatchObject([
    { version: 2, byName: 'Wren' },
    { version: 1 },
  ])
  expect(stampById(db, stamp)).toMatchObject({
    version: 2,
    usedIn: [
      { name: 'Sent', follows: false },
      { name: 'Planned', follows: true },
      { name: 'Draft', follows: true },
    ],
  })
})

test('who saw an older stamp does not change it', () => {
  const draft = mailing('Draft')
  changeStamp(db, stamp, saying('One'), 1, wren, 9)
  expect(changeStamp(db, stamp, saying('Two'), 1, wren, 9)).toBeNull()
  expect(label(draft)).toMatchObject({ label: 'One' })
})

test('a letter that was changed here first follows on top of what was written', () => {
  const draft = mailing('Draft')
  const id = mailingById(db, draft)!.letter_id
  saveLetter(db, id, { ...withStamp(), subject: 'Wind' }, 1, wren, 3)
  changeStamp(db, stamp, saying('One'), 1, wren, 9)
  expect(letter(draft)).toMatchObject({ subject: 'Wind', version: 3 })
})

test('a stamp that is taken away is in no list; letters keep what stands in them; it comes back', () => {
  const draft = mailing('Draft')
  setStampDeleted(db, stamp, 7)
  expect(readStamps(db)).toEqual([])
  expect(changeStamp(db, stamp, saying('One'), 1, wren, 9)).toBeNull()
  expect(label(draft)).toMatchObject({ label: 'The shop' })
  setStampDeleted(db, stamp, null)
  renameStamp(db, stamp, 'Elsewhere')
  expect(readStamps(db)).toMatchObject([{ name: 'Elsewhere' }])
})

test('what is no row is no stamp', () => {
  expect(readStampContent({ columns: [] })).toBeNull()
  expect(readStampContent('x')).toBeNull()
  expect(readStampContent({ id: 'r', ...saying('The shop') })).toEqual(saying('The shop'))
})

test('an own template is kept, taken away and given back; its stamps are as they are now', () => {
  const id = keepTemplate(db, { name: 'Ours', about: 'the usual' }, withStamp(), wren, 4)
  expect(ownTemplates(db)).toEqual([
    { id, name: 'Ours', about: 'the usual', byName: 'Wren', at: 4 },
  ])
  changeStamp(db, stamp, saying('One'), 1, wren, 9)
  expect(ownTemplateLetter(db, id)!.document.rows[0]).toMatchObject({
    columns: [{ blocks: [{ label: 'One' }] }],
  })
  setTemplateDeleted(db, id, 8)
  expect(ownTemplates(db)).toEqual([])
  expect(ownTemplateLetter(db, id)).toBeUndefined()
  setTemplateDeleted(db, id, null)
  expect(ownTemplates(db)).toHaveLength(1)
})
