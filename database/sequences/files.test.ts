import { expect, test } from 'vitest'
import {
  emptyMap,
  insertStep,
  mailingsOfMap,
  readSequenceFile,
  type ReadFile,
} from '../../core/sequences'
import { letterOf } from '../letters'
import { madeUpAccount } from '../made-up'
import { mailingById } from '../mailings'
import { deleteTag, tagNamed } from '../people'
import { transact } from '../query'
import { readCatalog } from '../segments'
import {
  addMailOf,
  addSequence,
  archiveSequence,
  bringInSequence,
  changeSequence,
  keepSequence,
  keptFile,
  keptSequences,
  sequenceById,
  setKeptDeleted,
  startableSequences,
  startSequence,
  takeOutSequence,
} from '.'

/** A sequence of one mail, into which whoever gets a tag comes. */
function made() {
  const { db, list } = madeUpAccount()
  const id = addSequence(db, 'Welcome', list, 0)
  const tagId = transact(db, () => tagNamed(db, 'flyer'))
  const mailing = addMailOf(db, sequenceById(db, id)!, 'Hello', 0)
  const map = insertStep(emptyMap, null, 'hello', { kind: 'mail', mailingId: mailing })
  const start = { ...map.start, by: [{ is: 'tag' as const, tagId, gets: true }] }
  const { revision } = sequenceById(db, id)!
  changeSequence(
    db,
    sequenceById(db, id)!,
    { name: 'Welcome', listId: list, map: { ...map, start } },
    revision,
  )
  const sequence = () => sequenceById(db, id)!
  return { db, list, id, tagId, mailing, sequence }
}

test('taken out and in it is a draft with letters of its own, on behalf of its list', () => {
  const { db, list, mailing, tagId, sequence } = made()
  const text = JSON.stringify(takeOutSequence(db, sequence()))
  const read = readSequenceFile(text, readCatalog(db)) as ReadFile
  const copy = sequenceById(db, bringInSequence(db, read, null, 5))!
  expect(copy).toMatchObject({ name: 'Welcome', state: 'draft', list_id: list, version: 0 })
  expect(copy.map.start.by).toEqual([{ is: 'tag', tagId, gets: true }])
  const [own] = mailingsOfMap(copy.map)
  expect(own).not.toBe(mailing)
  const letter = (id: number) => letterOf(db, mailingById(db, id)!.letter_id).document
  expect(letter(own!)).toEqual(letter(mailing))
  expect(mailingById(db, own!)).toMatchObject({
    name: 'Hello',
    sequence_id: copy.id,
    list_id: list,
  })
})

test('a kept one stays as it was; what is gone since is found missing', () => {
  const { db, list, tagId, sequence } = made()
  const by = { id: 1, name: 'Pia' }
  const kept = keepSequence(db, sequence(), { name: 'Ours', about: 'New' }, by, 7)
  expect(keptSequences(db)).toEqual([
    { id: kept, name: 'Ours', about: 'New', byName: 'Pia', at: 7 },
  ])
  const { revision } = sequence()
  changeSequence(db, sequence(), { name: 'Else', listId: list, map: emptyMap }, revision)
  deleteTag(db, tagId)
  const read = readSequenceFile(keptFile(db, kept)!, readCatalog(db)) as ReadFile
  expect(read.map.start.by).toEqual([{ is: 'tag', tagId: 0, gets: true }])
  expect(read.missing).toEqual(['There is no tag “flyer” here: choose another.'])
  setKeptDeleted(db, kept, 8)
  expect([keptSequences(db), keptFile(db, kept)]).toEqual([[], undefined])
  setKeptDeleted(db, kept, null)
  expect(keptSequences(db)).toHaveLength(1)
})

test('what does not run is archived, and let into by nothing; once it is started it is among the others', () => {
  const { db, id, sequence } = made()
  expect(archiveSequence(db, id, 3)).toBe(true)
  expect(startableSequences(db)).toEqual([])
  startSequence(db, sequence(), 4)
  expect(sequence()).toMatchObject({ state: 'running', archived_at: null })
  expect(archiveSequence(db, id, 5)).toBe(false)
  expect(startableSequences(db)).toHaveLength(1)
})
