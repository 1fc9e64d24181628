import { expect, test } from 'vitest'
import { proofOf } from '../../proof'
import { madeUpProof } from '../../proof/made-up'
import { cleanDocument } from '../clean'
import { blocksOf } from '../document'
import { defaultLetterhead, type Letterhead } from '../letterhead'
import { linksOf } from '../links'
import { compileLetter, mergeLetter, personContext } from '../rendering'
import { characters } from '../characters'
import { contrast } from '../color'
import { inheritedStyle } from '../style'
import { findTemplates, purposes, templateLetter, templates } from '.'
import { madeUpFrame as frame } from '../rendering/made-up'

test('there are many, for every purpose, and no two are called the same', () => {
  expect(templates.length).toBeGreaterThanOrEqual(24)
  expect(new Set(templates.map(({ key }) => key)).size).toBe(templates.length)
  expect(new Set(templates.map(({ name }) => name)).size).toBe(templates.length)
  for (const purpose of purposes) expect(findTemplates('', purpose).length).toBeGreaterThan(0)
})

test.each(templates.map((template) => [template.name, template] as const))(
  '%s: is a letter as one may save it',
  (_, { letter }) => {
    expect(cleanDocument(JSON.parse(JSON.stringify(letter.document)))).toEqual(letter.document)
    expect(blocksOf(letter.document).filter(({ kind }) => kind === 'footer')).toHaveLength(1)
    for (const block of blocksOf(letter.document))
      if (block.kind === 'picture') expect(block.alt).not.toBe('')
  },
)

test.each(templates.map((template) => [template.name, template] as const))(
  '%s: renders light, in every part, with its link early',
  async (_, { key, letter }) => {
    const compiled = await compileLetter(letter, frame)
    expect(compiled.weight).toBeLessThan(60 * 1024)
    const context = personContext(
      { address: 'tove@inkpost.example', values: {} },
      { list: 'Wind notes', sender: 'Galewright', mailing: 'm' },
    )
    const { html, text } = mergeLetter(compiled, context)
    expect(html).not.toMatch(/[\uE000-\uF8FF]|undefined|NaN/)
    expect(text).toContain('Unsubscribe: #leave')
    const firstLink = blocksOf(letter.document).findIndex(
      ({ kind }) => kind === 'button' || kind === 'product',
    )
    if (key !== 'personal') {
      expect(linksOf(letter.document).length).toBeGreaterThan(0)
      expect(firstLink).toBeLessThan(11)
    }
  },
)

const letterheads: Letterhead[] = [
  defaultLetterhead,
  ...characters.map(({ look }) => ({ ...defaultLetterhead, ...look })),
]

test.each(templates.map((template) => [template.name, template] as const))(
  '%s: all that is written can be read on its ground, in every letterhead',
  (_, { letter }) => {
    for (const row of letter.document.rows) {
      const of = (look: Letterhead) => inheritedStyle(look, letter.document.style, row.style)
      for (const { ink, accent, behind, quiet, onAccent } of letterheads.map(of))
        for (const [front, back] of [
          ...[[ink, behind] as const, [accent, behind] as const],
          ...[[quiet, behind] as const, [onAccent, accent] as const],
        ])
          expect(contrast(front, back)).toBeGreaterThan(4.5)
    }
  },
)

test('what is left of the prompts is found by the proof', () => {
  for (const { letter } of templates.filter(({ key }) => key !== 'basket')) {
    const marks = proofOf(madeUpProof(letter))
    expect(marks.some(({ check }) => check === 'filler-text')).toBe(true)
  }
})

test('they are found by what one wants to do', () => {
  const names = (words: string) => findTemplates(words, null).map(({ key }) => key)
  expect(names('abandoned cart')).toEqual(['basket'])
  expect(names('newslett')).toEqual(['regular', 'regular-pictures', 'regular-words'])
  expect(names('nothing of the kind')).toEqual([])
  expect(findTemplates('', 'Sell').every(({ purpose }) => purpose === 'Sell')).toBe(true)
  expect(blocksOf(templateLetter('empty').document)).toHaveLength(1)
  expect(templateLetter('sale').subject).toContain('20%')
  expect(templateLetter('of nobody').document.rows).toHaveLength(4)
})
