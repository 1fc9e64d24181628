import fc from 'fast-check'
import {
  insertBlock,
  insertRow,
  moveBlock,
  moveRow,
  removeBlock,
  removeRow,
  setColumns,
  updateBlock,
  updateRow,
} from './changes'
import { blocksOf, newBlock, type LetterDocument } from './document'

/** Letters made by changes at random, for tests. Ids begin with `by`, so that two writers never give the same. */
const step = fc.record({
  do: fc.constantFrom(
    'insert',
    'insert-into',
    'remove',
    'remove-row',
    'move',
    'move-block',
    'label',
    'columns',
    'hide',
    'style',
  ),
  a: fc.nat(30),
  b: fc.nat(30),
  c: fc.nat(3),
})
export const steps = fc.array(step, { maxLength: 12 })
export type Steps = typeof steps extends fc.Arbitrary<infer S> ? S : never

export function made(document: LetterDocument, by: string, all: Steps): LetterDocument {
  let ids = 0
  return all.reduce((now, { do: act, a, b, c }): LetterDocument => {
    const blocks = blocksOf(now)
    const block = blocks[a % blocks.length]!
    const row = now.rows[a % now.rows.length]!
    const into = now.rows[b % now.rows.length]!
    const place = { rowId: into.id, column: c % into.columns.length, at: b }
    const kind = (['button', 'divider', 'code'] as const)[b % 3]!
    switch (act) {
      case 'insert':
        return insertRow(now, a % now.rows.length, newBlock(kind, `${by}${++ids}`))
      case 'insert-into':
        return insertBlock(now, place, newBlock('button', `${by}${++ids}`))
      case 'remove':
        return removeBlock(now, block.id)
      case 'remove-row':
        return removeRow(now, row.id)
      case 'move':
        return moveRow(now, a % now.rows.length, b % now.rows.length)
      case 'move-block':
        return moveBlock(now, block.id, place)
      case 'label':
        return block.kind === 'button' ? updateBlock(now, block.id, { label: `${by} ${b}` }) : now
      case 'columns':
        return setColumns(now, row.id, c + 1)
      case 'hide':
        return updateRow(now, row.id, { hidden: b % 2 ? 'narrow' : undefined })
      default:
        return updateBlock(now, block.id, { style: { space: b } })
    }
  }, document)
}
