import fc from 'fast-check'
import { expect, test } from 'vitest'
import { made, steps } from '../arbitrary'
import { cleanDocument } from '../clean'
import { blocksOf, emptyLetter, newBlock, rowOf, type Letter } from '../document'
import { richText } from '../rich-text'
import { startingLetter } from '../starting-letter'
import { inTemplate, templateLetter, templates } from '.'

const contentOf = ({ document }: Letter) =>
  blocksOf(document).filter(({ kind }) => kind !== 'divider' && kind !== 'space')

test('whatever the letter and the template: all the words are there once, in their order, and no filler', () => {
  fc.assert(
    fc.property(steps, fc.constantFrom(...templates), (all, template) => {
      const letter = { ...startingLetter(), document: made(startingLetter().document, 'o', all) }
      const poured = inTemplate(letter, template.letter)
      const words = (one: Letter) =>
        contentOf(one).map(({ id, kind, ...block }) => [
          kind,
          'text' in block ? block.text : 'label' in block ? block.label : id,
        ])
      const hasRules = letter.document.rows.some(({ hidden }) => hidden)
      if (!hasRules) expect(words(poured)).toEqual(words(footerLast(letter)))
      expect(words(poured)).toHaveLength(words(letter).length)
      expect(cleanDocument(JSON.parse(JSON.stringify(poured.document)))).toEqual(poured.document)
      expect(poured.subject).toBe(letter.subject)
    }),
    { numRuns: 300 },
  )
})

test('the look is the template’s, and its columns, too', () => {
  const template = templates.find(({ letter }) =>
    letter.document.rows.some(({ columns }) => columns.length > 1),
  )!
  const poured = inTemplate(template.letter, template.letter)
  expect(poured.document.style).toEqual(template.letter.document.style)
  expect(poured.document.rows.map(({ columns }) => columns.length)).toEqual(
    template.letter.document.rows.map(({ columns }) => columns.length),
  )
})

test('a row with a rule and a stamp’s row are carried over whole', () => {
  const text = { ...newBlock('text', 'words'), text: richText('For some.') }
  const empty = emptyLetter()
  const letter: Letter = {
    ...empty,
    document: {
      ...empty.document,
      rows: [
        { ...rowOf(text), shownTo: { rule: { kind: 'any', of: [] } } },
        { ...rowOf(newBlock('button', 'go')), stamp: 7 },
        ...empty.document.rows,
      ],
    },
  }
  const poured = inTemplate(letter, templateLetter('start'))
  expect(poured.document.rows.slice(0, 2)).toMatchObject([
    { shownTo: { rule: { kind: 'any' } } },
    { stamp: 7 },
  ])
})

/** The footer is put last, as every template has it. */
function footerLast(letter: Letter): Letter {
  const rows = letter.document.rows.flatMap((row) =>
    row.columns.flatMap(({ blocks }) => blocks.map((block) => rowOf(block))),
  )
  const last = (row: (typeof rows)[number]) => Number(row.columns[0]!.blocks[0]!.kind === 'footer')
  return {
    ...letter,
    document: { ...letter.document, rows: rows.toSorted((a, b) => last(a) - last(b)) },
  }
}
