import { beforeEach, expect, test } from 'vitest'
import { startingLetter, type Letter } from '../../core/letters'
import { MINUTE } from '../../core/time'
import { letterVersion, letterVersions, saveLetter } from './history'
import { madeUpAccount } from '../made-up'
import { createMailing, mailingById } from '../mailings'
import { letterOf } from './letter'
import type { Database } from '../query'

const wren = { id: 1, name: 'Wren' }
const tove = { id: 2, name: 'Tove' }
let db: Database
let id: number
beforeEach(() => {
  let list: number
  ;({ db, list } = madeUpAccount())
  const mailing = createMailing(db, { name: 'Wind', listId: list, letter: startingLetter() }, 1_000)
  id = mailingById(db, mailing)!.letter_id
})
const about = (subject: string): Letter => ({ ...startingLetter(), subject })
const subjects = () =>
  letterVersions(db, id).map((version) => letterVersion(db, id, version.id)!.subject)

test('a sitting is one version, and the letter as it was begun is the first', () => {
  expect(saveLetter(db, id, about('W'), 1, wren, 10 * MINUTE)).toBe(2)
  expect(saveLetter(db, id, about('Wind'), 2, wren, 12 * MINUTE)).toBe(3)
  expect(subjects()).toEqual(['Wind', ''])
  expect(letterVersions(db, id)[0]).toMatchObject({
    beganAt: 10 * MINUTE,
    at: 12 * MINUTE,
    byName: 'Wren',
    version: 3,
  })
})

test('after a pause, or by somebody else, a new version begins', () => {
  saveLetter(db, id, about('a'), 1, wren, 0)
  saveLetter(db, id, about('b'), 2, wren, 11 * MINUTE)
  saveLetter(db, id, about('c'), 3, tove, 12 * MINUTE)
  saveLetter(db, id, about('d'), 4, wren, 13 * MINUTE)
  expect(subjects()).toEqual(['d', 'c', 'b', 'a', ''])
  expect(letterVersions(db, id).map(({ byName }) => byName)).toEqual([
    'Wren',
    'Tove',
    'Wren',
    'Wren',
    'Wren',
  ])
})

test('who saw an older version is told, and nothing is written', () => {
  saveLetter(db, id, about('a'), 1, wren, 0)
  expect(saveLetter(db, id, about('late'), 1, tove, 5)).toBeNull()
  expect(subjects()).toEqual(['a', ''])
  expect(letterOf(db, id).subject).toBe('a')
})

test('an older version comes back as a new one; what was there stays in the history', () => {
  saveLetter(db, id, about('good'), 1, wren, 0)
  saveLetter(db, id, about('worse'), 2, wren, 20 * MINUTE)
  const [, good] = letterVersions(db, id)
  const restored = letterVersion(db, id, good!.id)!
  expect(saveLetter(db, id, restored, 3, wren, 21 * MINUTE, good!.version)).toBe(4)
  expect(letterOf(db, id)).toMatchObject({ subject: 'good', version: 4 })
  expect(subjects()).toEqual(['good', 'worse', 'good', ''])
  expect(letterVersions(db, id)[0]!.restoredFrom).toBe(2)
  saveLetter(db, id, about('on from there'), 4, wren, 22 * MINUTE)
  expect(subjects()).toEqual(['on from there', 'good', 'worse', 'good', ''])
})

test('a version of another letter is none of this one’s, and only so many are kept', () => {
  for (let i = 1; i <= 205; i++) saveLetter(db, id, about(`v${i}`), i, i % 2 ? wren : tove, i)
  expect(letterVersions(db, id)).toHaveLength(200)
  expect(subjects()[0]).toBe('v205')
  expect(letterVersion(db, id + 1, letterVersions(db, id)[0]!.id)).toBeUndefined()
})
