import { beforeEach, expect, test } from 'vitest'
import { emptyLetter, newBlock, type Block } from '../../core/letters'
import { rowOf } from '../../core/letters/document'
import { madeUpAccount } from '../made-up'
import { createMailing } from '../mailings'
import {
  addPicture,
  keepSize,
  libraryPictures,
  pictureByHash,
  setPictureRemoved,
  sizedPicture,
  updatePicture,
} from './pictures'
import type { Database } from '../query'

let db: Database
let list: number
beforeEach(() => void ({ db, list } = madeUpAccount()))
const hash = (digit: string) => digit.repeat(32)
const picture = (digit: string) => ({
  hash: hash(digit),
  name: `${digit}.png`,
  mime: 'image/png',
  width: 900,
  height: 300,
  bytes: Buffer.from('twelve bytes'),
  created_at: 7,
})

test('the library knows its pictures, and the letters that show them', () => {
  const { path } = addPicture(db, picture('a'))
  addPicture(db, picture('b'))
  const shows = { ...newBlock('picture', 'p'), src: path } as Block
  const letter = emptyLetter()
  const rows = [rowOf(shows), { ...rowOf({ ...shows, id: 'q' }), style: { backdrop: path } }]
  letter.document.rows.unshift(...rows)
  const id = createMailing(db, { name: 'Wind', listId: list, letter }, 0)
  expect(libraryPictures(db)).toMatchObject([
    { path: `/p/${hash('b')}`, usedIn: [] },
    { path, weight: 12, width: 900, folder: '', usedIn: [{ id, name: 'Wind' }] },
  ])
})

test('a picture is kept once; one that was taken away comes back when it is brought again', () => {
  const { id } = addPicture(db, picture('a'))
  updatePicture(db, id, { name: 'Storm', folder: 'Weather', alt: 'A kite' })
  expect(setPictureRemoved(db, id, 9)).toBe(true)
  expect(libraryPictures(db)).toEqual([])
  expect(pictureByHash(db, hash('a'))).toBeDefined()
  expect(addPicture(db, picture('a')).id).toBe(id)
  expect(libraryPictures(db)).toMatchObject([{ name: 'Storm', folder: 'Weather', alt: 'A kite' }])
  expect(updatePicture(db, 99, { name: 'x' })).toBe(false)
})

test('a size is made once', () => {
  const size = { hash: hash('a'), width: 400, mime: 'image/png', bytes: Buffer.from('one') }
  expect(sizedPicture(db, hash('a'), 400)).toBeUndefined()
  keepSize(db, size)
  keepSize(db, { ...size, bytes: Buffer.from('two') })
  expect(sizedPicture(db, hash('a'), 400)!.bytes.toString()).toBe('one')
})
