import { beforeEach, expect, it } from 'vitest'
import { MOST_LABELS, MOST_ON_ONE } from '../../core/labels'
import { openMemory, type Database } from '..'
import {
  changeLabel,
  copyLabels,
  labelsNamed,
  labelUses,
  labelVersion,
  mergeLabels,
  putLabel,
  readLabels,
  setLabelDeleted,
  takeLabel,
  type Label,
} from '.'
import { addSequence } from '../sequences'
import { createMailing } from '../mailings'
import { startingLetter } from '../../core/letters'

let db: Database
let mailing: number
let sequence: number
beforeEach(() => {
  db = openMemory()
  mailing = createMailing(db, { name: 'Kite days', listId: null, letter: startingLetter() }, 1)
  sequence = addSequence(db, 'First breeze', null, 1)
})
const names = () => readLabels(db).map(({ name }) => name)
const put = (name: string, on = mailing) => putLabel(db, name, 'mailing', on) as Label
const uses = (id: number) => labelUses(db).filter(({ labelId }) => labelId === id)

it('a label is made where it is first put, and is one however it is written', () => {
  const made = put(' Spring  fair ')
  expect(made.name).toBe('Spring fair')
  expect(putLabel(db, 'SPRING FAIR', 'sequence', sequence)).toEqual(made)
  // Twice is once.
  put('Spring fair')
  expect(names()).toEqual(['Spring fair'])
  expect(labelUses(db)).toEqual([
    { labelId: made.id, kind: 'mailing', itemId: mailing },
    { labelId: made.id, kind: 'sequence', itemId: sequence },
  ])
  takeLabel(db, made.id, 'mailing', mailing)
  expect(labelUses(db)).toEqual([{ labelId: made.id, kind: 'sequence', itemId: sequence }])
  expect(names()).toEqual(['Spring fair'])
  expect(labelsNamed(db, 'ING F')).toEqual([made])
})

it('nothing is put on what is not there, nor more than can be read', () => {
  expect(putLabel(db, 'Spring', 'sign-up', 77)).toBe('gone')
  for (let i = 0; i < MOST_ON_ONE; i++) put(`Label ${i}`)
  expect(put('One more')).toBe('many')
  // One that is on it already is no more.
  expect(put('label 3').name).toBe('Label 3')
  for (let i = MOST_ON_ONE; i < MOST_LABELS; i++) {
    const made = putLabel(db, `Label ${i}`, 'sequence', sequence) as Label
    takeLabel(db, made.id, 'sequence', sequence)
  }
  expect(putLabel(db, 'One more', 'sequence', sequence)).toBe('many')
  expect(names()).toHaveLength(MOST_LABELS)
})

it('a copy has the labels too, and what is deleted has none', () => {
  const { id } = put('Spring')
  const copy = createMailing(db, { name: 'Again', listId: null, letter: startingLetter() }, 2)
  copyLabels(db, 'mailing', mailing, copy)
  expect(uses(id).map(({ itemId }) => itemId)).toEqual([mailing, copy])
  db.sqlite.prepare('delete from mailings where id = ?').run(copy)
  db.sqlite.prepare('delete from sequences where id = ?').run(sequence)
  expect(uses(id).map(({ itemId }) => itemId)).toEqual([mailing])
})

it('it is renamed unless another has the name, and merged with that one', () => {
  const spring = put('Spring')
  const fair = putLabel(db, 'Fair', 'sequence', sequence) as Label
  putLabel(db, 'Fair', 'mailing', mailing)
  const version = labelVersion(db, spring.id)
  expect(changeLabel(db, spring.id, ' fair')).toBe('taken')
  expect(changeLabel(db, spring.id, 'SPRING')).toBe('changed')
  expect(labelVersion(db, spring.id)).not.toBe(version)
  expect(changeLabel(db, 99, 'Other')).toBe('gone')
  expect(mergeLabels(db, fair.id, fair.id)).toBe(false)
  expect(mergeLabels(db, fair.id, spring.id)).toBe(true)
  expect(names()).toEqual(['SPRING'])
  expect(uses(spring.id).map(({ kind }) => kind)).toEqual(['mailing', 'sequence'])
})

it('a deleted one is given back with all it was on, unless its name is taken', () => {
  const { id } = put('Spring')
  expect(setLabelDeleted(db, id, 5)).toBe('changed')
  expect([names(), labelUses(db), labelVersion(db, id)]).toEqual([[], [], undefined])
  expect(setLabelDeleted(db, id, 6)).toBe('gone')
  expect(changeLabel(db, id, 'Other')).toBe('gone')
  expect(setLabelDeleted(db, id, null)).toBe('changed')
  expect(uses(id)).toHaveLength(1)
  setLabelDeleted(db, id, 7)
  const other = put('spring')
  expect(other.id).not.toBe(id)
  expect(setLabelDeleted(db, id, null)).toBe('taken')
  expect(names()).toEqual(['spring'])
})
