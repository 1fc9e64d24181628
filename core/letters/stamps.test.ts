import fc from 'fast-check'
import { expect, test } from 'vitest'
import { made, steps } from './arbitrary'
import { cleanDocument, readRow } from './clean'
import { blocksOf, emptyLetter, newBlock, rowOf, type Block } from './document'
import { updateRow } from './changes'
import { isAsStamped, stampContent, stamped, stampRow, stampsIn, withStamps } from './stamps'

const saying = (label: string) => ({ ...newBlock('button', 'x'), label }) as Block
const link = saying('See the sale')
const content = stampContent({ ...rowOf(link), style: { ground: '#eeeeee' } })
const other = stampContent(rowOf(saying('The sale is over')))

function letterWith(...rows: ReturnType<typeof rowOf>[]) {
  const empty = emptyLetter().document
  return { ...empty, rows: [...rows, ...empty.rows] }
}

test('a linked row follows its stamp; who gets it stays as the letter says', () => {
  const row = { ...stampRow('a', 7, content), hidden: 'narrow' as const }
  const document = letterWith(row, rowOf(newBlock('divider', 'd')))
  expect(withStamps(document, new Map([[7, content]]))).toBe(document)
  const followed = withStamps(document, new Map([[7, other]]))
  expect(followed.rows[0]).toMatchObject({ id: 'a', stamp: 7, hidden: 'narrow' })
  expect(followed.rows[0]!.style).toBeUndefined()
  expect(blocksOf(followed)[0]).toMatchObject({ id: 'a-1', label: 'The sale is over' })
  expect(followed.rows[1]).toBe(document.rows[1])
})

test('a stamp that is gone leaves the letter as it is', () => {
  const document = letterWith(stampRow('a', 7, content))
  expect(withStamps(document, new Map())).toBe(document)
})

test('a detached row follows no more', () => {
  const detached = updateRow(letterWith(stampRow('a', 7, content)), 'a', { stamp: undefined })
  expect(withStamps(detached, new Map([[7, other]]))).toBe(detached)
  expect(stampsIn(detached)).toEqual([])
})

test('what a row holds is compared without its ids', () => {
  expect(isAsStamped(stampRow('a', 7, content), content)).toBe(true)
  expect(isAsStamped(stampRow('a', 7, content), other)).toBe(false)
  const { style, ...rest } = content
  expect(isAsStamped(stampRow('a', 7, { style: style!, ...rest }), content)).toBe(true)
})

const followsAnother = (a: Steps, b: Steps) => {
  const rows = [a, b].map((all) => made(emptyLetter().document, 'o', all).rows[0]!)
  const [one, two] = rows.map(stampContent) as [typeof content, typeof content]
  const document = letterWith(stampRow('a', 1, one), stampRow('b', 1, one))
  const followed = withStamps(document, new Map([[1, two]]))
  const ids = blocksOf(followed).map(({ id }) => id)
  expect(new Set(ids).size).toBe(ids.length)
  for (const row of followed.rows.slice(0, 2)) expect(isAsStamped(row, two)).toBe(true)
  expect(withStamps(followed, new Map([[1, two]]))).toBe(followed)
  expect(stamped(followed.rows[0]!, two)).toEqual(followed.rows[0])
}
type Steps = Parameters<typeof made>[2]

test('whatever a stamp holds: its row is as stamped, readable, and no id stands there twice', () => {
  fc.assert(fc.property(steps, steps, followsAnother))
})

test('a new block does not get the id of one that stays', () => {
  const insert = (c: number) => ({ do: 'insert-into' as const, a: 0, b: 0, c })
  const columns = { do: 'columns' as const, a: 0, b: 0, c: 1 }
  followsAnother([columns, insert(1)], [insert(0), columns, insert(1)])
})

test('a letter keeps its links to stamps when it is read, but the way out is no stamp’s', () => {
  const document = letterWith(stampRow('a', 7, content))
  expect(stampsIn(cleanDocument(JSON.parse(JSON.stringify(document)))!)).toEqual([7])
  const footer = { ...emptyLetter().document.rows[0]!, stamp: 7 }
  expect(readRow(footer)!.stamp).toBeUndefined()
  expect(readRow({ ...document.rows[0], stamp: '7' })!.stamp).toBeUndefined()
  expect(readRow('no row')).toBeNull()
})
