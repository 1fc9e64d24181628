import { expect, test } from 'vitest'
import { catalog } from '../segments/arbitrary'
import { emptyLetter, newBlock, renditionName, type Block } from '.'
import { rowOf } from './document'
import { richText } from './rich-text'

test('a rendition is called by the rules of what is shown in it', () => {
  const text = (id: string): Block => ({ ...newBlock('text', id), text: richText(id) }) as Block
  const tagged = (tagId: number) => ({ rule: { kind: 'tagged' as const, tagId } })
  const document = {
    ...emptyLetter().document,
    rows: [
      rowOf(text('all')),
      { ...rowOf(text('one')), shownTo: tagged(1) },
      { ...rowOf(text('two')), shownTo: tagged(2) },
      { ...rowOf(text('rest')), shownTo: { rest: true as const } },
    ],
  }
  const names = [0b00, 0b01, 0b10, 0b11].map((truth) => renditionName(document, truth, catalog))
  expect(names).toEqual([
    'everyone else',
    'tagged "owner"',
    'tagged "Presse"',
    'tagged "owner" + tagged "Presse"',
  ])
  expect(renditionName({ ...document, rows: document.rows.slice(0, 2) }, 0, catalog)).toBe(
    'only what everybody gets',
  )
})
