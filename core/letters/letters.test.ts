import { Liquid } from 'liquidjs'
import { test, expect } from 'vitest'
import fc from 'fast-check'
import { blocksOf, newBlock, emptyLetter, type BlockKind, type LetterDocument } from './document'
import { duplicateRow, insertRow, moveRow, removeBlock, updateBlock } from './changes'
import { cleanDocument, safeLink } from './clean'
import {
  compileFillIn,
  fillInsOf,
  fillInSyntaxProblem,
  plainFillIn,
  readFillIn,
  readTemplateText,
  writeFillIn,
} from './fill-ins'
import { linksOf } from './links'
import { startingLetter } from './starting-letter'

const kinds: BlockKind[] = ['heading', 'text', 'picture', 'button', 'divider', 'space']

test('any run of changes leaves a document that cleaning does not change, with its one footer', () => {
  const change = fc.oneof(
    fc.record({
      do: fc.constant('insert' as const),
      at: fc.nat(20),
      kind: fc.constantFrom(...kinds),
    }),
    fc.record({ do: fc.constant('remove' as const), at: fc.nat(20) }),
    fc.record({ do: fc.constant('move' as const), at: fc.nat(20), to: fc.nat(20) }),
    fc.record({ do: fc.constant('duplicate' as const), at: fc.nat(20) }),
    fc.record({
      do: fc.constant('label' as const),
      at: fc.nat(20),
      label: fc.string({ unit: 'grapheme' }),
    }),
  )
  fc.assert(
    fc.property(fc.array(change, { maxLength: 40 }), (changes) => {
      let document: LetterDocument = emptyLetter().document
      let ids = 0
      for (const step of changes) {
        const before = JSON.stringify(document)
        const old = document
        const block = blocksOf(document)[step.at % blocksOf(document).length]!
        if (step.do === 'insert')
          document = insertRow(document, step.at, newBlock(step.kind, `n${ids++}`))
        if (step.do === 'remove') document = removeBlock(document, block.id)
        if (step.do === 'move')
          document = moveRow(document, step.at % document.rows.length, step.to)
        if (step.do === 'duplicate') document = duplicateRow(document, step.at, () => `n${ids++}`)
        if (step.do === 'label' && block.kind === 'button')
          document = updateBlock(document, block.id, { label: step.label.normalize('NFC') })
        expect(JSON.stringify(old)).toBe(before) // the old document is untouched, so undo is to keep it
      }
      expect(blocksOf(document).filter((block) => block.kind === 'footer')).toHaveLength(1)
      expect(blocksOf(document).at(-1)!.kind).toBe('footer')
      expect(new Set(blocksOf(document).map((block) => block.id)).size).toBe(
        blocksOf(document).length,
      )
      expect(cleanDocument(JSON.parse(JSON.stringify(document)))).toEqual(document)
    }),
  )
})

test('what comes from outside is cleaned, whatever it is', () => {
  fc.assert(fc.property(fc.jsonValue(), (json) => void cleanDocument(json)))
  const nasty = cleanDocument({
    version: 1,
    rows: [
      {
        id: 'a',
        columns: [
          {
            share: 1,
            blocks: [
              {
                id: 'x"onload=',
                kind: 'button',
                label: 'Go\uE000l1\uE001',
                href: 'javascript:alert(1)',
              },
              { id: 'p', kind: 'picture', src: 'data:text/html,x', alt: 'a' },
              { kind: 'script', text: 'alert(1)' },
              {
                id: 't',
                kind: 'text',
                text: {
                  type: 'doc',
                  content: [
                    { type: 'iframe' },
                    {
                      type: 'paragraph',
                      content: [
                        {
                          type: 'text',
                          text: 'hi',
                          marks: [
                            { type: 'link', attrs: { href: 'vbscript:x' } },
                            { type: 'onclick' },
                          ],
                        },
                      ],
                    },
                  ],
                },
              },
            ],
          },
        ],
      },
    ],
  })!
  const [button, picture, text] = blocksOf(nasty)
  expect(button).toMatchObject({ id: 'b', label: 'Gol1', href: '' })
  expect(picture).toMatchObject({ src: '' })
  expect(text).toMatchObject({
    text: {
      content: [{ content: [{ text: 'hi', marks: [{ type: 'link', attrs: { href: '' } }] }] }],
    },
  })
  expect(blocksOf(nasty)).toHaveLength(3)
})

test('links are http, mailto or tel, and a bare domain is completed', () => {
  expect(safeLink('galewright.example/sale')).toBe('https://galewright.example/sale')
  expect(safeLink('mailto:a@b.example')).toBe('mailto:a@b.example')
  expect(safeLink('data:text/html,x')).toBe('')
  expect(safeLink(undefined)).toBe('')
})

test('fill-ins are read with their fallback and written back', () => {
  expect(readFillIn('person.first_name | default: "there"')).toMatchObject({
    path: 'person.first_name',
    fallback: 'there',
  })
  expect(readFillIn('person.town')).toMatchObject({ path: 'person.town', fallback: null })
  expect(readFillIn(writeFillIn('person.town', ''))).toMatchObject({ fallback: '' })
  expect(readTemplateText('Hi {{ person.first_name }}!')).toEqual([
    'Hi ',
    { expression: 'person.first_name' },
    '!',
  ])
  expect(fillInSyntaxProblem('person.first_name | default: "x"')).toBeNull()
  expect(fillInSyntaxProblem('person.first_name | nosuchfilter')).toMatch(/undefined filter/)
  expect(fillInSyntaxProblem('%} {% for')).toMatch(/no tags/)
  fc.assert(
    fc.property(fc.string(), (fallback) => {
      expect(readFillIn(writeFillIn('person.town', fallback)).fallback).toBe(
        fallback.replace(/["{}%]/g, ''),
      )
    }),
  )
})

test.each([
  'person.first_name | default: "x" | append: (1..300000000) | size',
  'person.first_name | default: (1..9)',
  '(1..300000000) | join: ""',
  'person.first_name[0]',
  'person["first_name"]',
  'person.a.b.c.d.e',
  'person.x | sort | map: "y" | where: "z"',
  'person.x | default: "a" | default: "b" | default: "c" | default: "d" | default: "e" | default: "f" | default: "g"',
  `person.x | default: "${'x'.repeat(600)}"`,
  'person.x | replace: "", "yyyyyyyy" | replace: "", "yyyyyyyy"',
  'person.x | split: ""',
  'person.x | upcase: (1..2)',
  "person.x | default: 'a' | times: 9999999",
])('%s is no fill-in, however it is asked', (expression) => {
  expect(fillInSyntaxProblem(expression)).not.toBeNull()
  expect(() => compileFillIn(expression)).toThrow()
})

test('whatever is written in a fill-in, it is refused or quickly written, and short', () => {
  const piece = fc.constantFrom(
    ...['person', '.x', '(1..999999999)', '[0]', '|', 'append:', '"ab"', 'default:', 'upcase', ','],
    ...['truncate: 999999999', "'", '..', 'person.x', ' ', 'prepend: person.x', 'size', 'round: 2'],
  )
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 12 }), fc.string(), (pieces, value) => {
      const expression = pieces.join(' ')
      if (fillInSyntaxProblem(expression) !== null) return
      const text = compileFillIn(expression)({ person: { x: value.repeat(50) } })
      expect(text.length).toBeLessThanOrEqual(4_000)
    }),
    { numRuns: 2_000 },
  )
})

test('any filters with any arguments are refused, or written for whatever a reader has', () => {
  const argument = fc.constantFrom(
    '"ab"',
    '"\\""',
    "'\\', '",
    '3',
    '-1',
    '0.5',
    'person',
    'person.x',
    'person.none',
  )
  const filter = fc
    .tuple(
      fc.constantFrom(
        ...['default', 'capitalize', 'upcase', 'downcase', 'strip', 'truncate', 'truncatewords'],
        ...['append', 'prepend', 'round', 'first', 'last', 'escape', 'day', 'thousands'],
      ),
      fc.array(argument, { maxLength: 4 }),
    )
    .map(([name, given]) => (given.length ? `${name}: ${given.join(' , ')}` : name))
  const value = fc.oneof(
    fc.string(),
    fc.double(),
    fc.constantFrom(null, undefined, true, '2026-02-30', [], ['a', null], {}, { of: 'it' }),
  )
  let written = 0
  fc.assert(
    fc.property(
      fc.constantFrom('person', 'person.x', 'person.none'),
      fc.array(filter, { minLength: 1, maxLength: 4 }),
      value,
      (of, filters, x) => {
        const expression = [of, ...filters].join(' | ')
        if (fillInSyntaxProblem(expression) !== null) return
        written++
        expect(compileFillIn(expression)({ person: { x } }).length).toBeLessThanOrEqual(4_000)
      },
    ),
    { numRuns: 4_000 },
  )
  expect(written).toBeGreaterThan(1_000)
})

test('one value that is very long, whatever is done to it, stops no letter', () => {
  for (const filters of [
    ' | escape | escape | escape | escape | escape | escape',
    ' | append: person.a | append: person.a | append: person.a | upcase',
    ' | truncatewords: 999999999 | strip | truncate: 999999999',
  ])
    for (const a of ['<'.repeat(1e6), '"'.repeat(16_000), ' '.repeat(1e6), ['x'.repeat(1e6)]])
      expect(
        compileFillIn(`person.a${filters}`)({ person: { a } }).length,
        filters,
      ).toBeLessThanOrEqual(4_000)
})

test('the starting letter greets by name with a fallback and has one link to set', () => {
  const letter = startingLetter()
  expect(fillInsOf(letter)).toMatchObject([{ blockId: 'opening', fillIn: { fallback: 'there' } }])
  expect(linksOf(letter.document)).toEqual([{ url: '', blockId: 'action', words: 'Read more' }])
})

test('a plain fill-in comes to what Liquid makes of it, whatever the values', () => {
  const liquid = new Liquid({ strictFilters: true, ownPropertyOnly: true })
  const value = fc.oneof(
    fc.string({ unit: 'grapheme' }),
    fc.constantFrom('', ' ', null, undefined, false, true, 0, 12.5, '{{ x }}', '<b>'),
  )
  const expression = fc.constantFrom(
    'person.town',
    ' person.town ',
    'person.town | default: "there"',
    "person.town|default:'you'",
    'person.town | default: ""',
    'person.constructor | default: "x"',
    'person.length',
    'nobody.town | default: "x"',
  )
  fc.assert(
    fc.property(expression, fc.record({ town: value }, { requiredKeys: [] }), (one, person) => {
      const plain = plainFillIn(one)!
      const context = { person } as Parameters<typeof plain>[0]
      expect(plain(context)).toBe(liquid.parseAndRenderSync(`{{ ${one} }}`, context))
    }),
    { numRuns: 1_000 },
  )
})

test('a field may be called as one of Liquid’s own words', () => {
  const plain = plainFillIn('person.size | default: "any size"')!
  expect(plain({ person: { size: '2 m' } })).toBe('2 m')
  expect(plain({ person: {} })).toBe('any size')
})

test.each([
  'person.town | upcase',
  'person.town | default: other.value',
  'person.town | default: "a" | upcase',
  'person.town.first',
  'person.if.town',
  '"text"',
  'person.town | default: "a\\"b"',
])('%j is left to Liquid', (expression) => expect(plainFillIn(expression)).toBeNull())

test.each([
  ['capitalize', 'hale point', 'Hale point'],
  ['upcase', 'Hale', 'HALE'],
  ['day', '2026-11-24', '24 November'],
  ['full_day', '2026-11-24', '24 November 2026'],
  ['weekday', '2026-11-24', 'Tuesday'],
  ['thousands', 12500, '12,500'],
  ['thousands', 'many', 'many'],
  ['thousands', '', 'none'],
  ['day', undefined, 'none'],
])('a value written by %s: %j reads %j', (format, value, read) => {
  const expression = writeFillIn('person.x', 'none', format)
  expect(fillInSyntaxProblem(expression)).toBeNull()
  expect(readFillIn(expression)).toMatchObject({ path: 'person.x', fallback: 'none' })
  expect(compileFillIn(expression)({ person: { x: value } })).toBe(read)
})
