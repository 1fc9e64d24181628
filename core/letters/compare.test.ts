import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  duplicateRow,
  insertRow,
  moveRow,
  removeBlock,
  setColumns,
  updateBlock,
  updateRow,
} from './changes'
import { compareLetters } from './compare'
import { blocksOf, newBlock, type Letter, type LetterDocument } from './document'
import { richText } from './rich-text'
import { startingLetter } from './starting-letter'

const letter = startingLetter()
const withDocument = (change: (document: LetterDocument) => LetterDocument): Letter => ({
  ...letter,
  document: change(letter.document),
})
const told = (after: Letter) =>
  compareLetters(letter, after).map(({ what, name, blockId }) => [what, name, blockId])

test('what is changed is told, each change as one', () => {
  expect(told({ ...letter, subject: 'Wind', previewText: 'This week' })).toEqual([
    ['changed', 'Subject', null],
    ['changed', 'Preview text', null],
  ])
  expect(
    told(withDocument((d) => updateBlock(d, 'title', { text: richText('The wind') }))),
  ).toEqual([['changed', 'Heading', 'title']])
  expect(told(withDocument((d) => removeBlock(d, 'action')))).toEqual([
    ['removed', 'Button', 'action'],
  ])
  expect(told(withDocument((d) => insertRow(d, 1, newBlock('divider', 'line'))))).toEqual([
    ['added', 'Divider', 'line'],
  ])
  expect(told(withDocument((d) => moveRow(d, 2, 0)))).toEqual([['moved', 'Button', 'action']])
  expect(told(withDocument((d) => updateRow(d, 'r-title', { hidden: 'narrow' })))).toEqual([
    ['changed', 'Row', 'title'],
  ])
  expect(told(withDocument((d) => setColumns(d, 'r-title', 2)))).toEqual([
    ['changed', 'Row', 'title'],
  ])
  expect(told(withDocument((d) => ({ ...d, style: { size: 17 } })))).toEqual([
    ['changed', 'Look of the letter', null],
  ])
})

test('the words before and after stand beside each other', () => {
  const after = withDocument((d) => updateBlock(d, 'title', { text: richText('The wind is back') }))
  expect(compareLetters(letter, after)[0]).toMatchObject({
    before: 'What this letter is about',
    after: 'The wind is back',
  })
})

test('the same letter has no changes, in whatever order its properties stand; another has some', () => {
  const step = fc.record({
    do: fc.constantFrom('insert', 'remove', 'move', 'copy', 'write', 'hide'),
    at: fc.nat(8),
    to: fc.nat(8),
  })
  fc.assert(
    fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
      let { document } = letter
      let ids = 0
      for (const { do: what, at, to } of steps) {
        const blocks = blocksOf(document)
        const { id } = blocks[at % blocks.length]!
        if (what === 'insert') document = insertRow(document, at, newBlock('text', `n${ids++}`))
        if (what === 'remove') document = removeBlock(document, id)
        if (what === 'move') document = moveRow(document, at % document.rows.length, to)
        if (what === 'copy')
          document = duplicateRow(document, at % document.rows.length, () => `c${ids++}`)
        if (what === 'write') document = updateBlock(document, id, { text: richText(`w${to}`) })
        if (what === 'hide')
          document = updateRow(document, document.rows[at % document.rows.length]!.id, {
            hidden: 'wide',
          })
      }
      const after = { ...letter, document }
      const turned = JSON.parse(JSON.stringify(after, turnRound)) as Letter
      expect(compareLetters(after, turned)).toEqual([])
      const order = (doc: LetterDocument) => JSON.stringify(doc.rows)
      if (order(document) !== order(letter.document))
        expect(compareLetters(letter, after).length).toBeGreaterThan(0)
    }),
  )
})

function turnRound(_key: string, value: unknown): unknown {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value
  return Object.fromEntries(Object.entries(value).reverse())
}
