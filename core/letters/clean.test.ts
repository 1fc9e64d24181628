import fc from 'fast-check'
import { expect, test } from 'vitest'
import { cleanDocument, cleanRichText, safeLink } from './clean'
import { blocksOf } from './document'
import { inlinesOf } from './rich-text'

/** JSON as an attacker or a broken program might send it: any shape, with our own words in it. */
const word = fc.constantFrom(
  'doc',
  'paragraph',
  'bulletList',
  'listItem',
  'text',
  'hardBreak',
  'fillIn',
  'link',
  'bold',
  'heading',
  'picture',
  'button',
  'footer',
  'script',
  'javascript:alert(1)',
  'https://x.example/',
)
const json = fc.letrec((again) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    fc.constant(null),
    fc.boolean(),
    fc.double(),
    fc.string({ unit: 'grapheme' }),
    word,
    fc.array(again('value'), { maxLength: 4 }),
    fc.dictionary(
      fc.constantFrom(
        'type',
        'kind',
        'version',
        'rows',
        'columns',
        'blocks',
        'content',
        'text',
        'marks',
        'attrs',
        'href',
        'src',
        'id',
        'share',
        '__proto__',
      ),
      again('value'),
      { maxKeys: 7 },
    ),
  ),
})).value

const row = (block: unknown) => ({
  version: 1,
  rows: [{ id: 'r', columns: [{ share: 1, blocks: [block] }] }],
})

test('whatever comes in, what comes out is a document that cleaning leaves as it is', () => {
  fc.assert(
    fc.property(json, (content) => {
      for (const shape of [
        content,
        { version: 1, rows: content },
        row(content),
        row({ kind: 'text', text: content }),
      ]) {
        const cleaned = cleanDocument(shape)
        if (cleaned === null) continue
        expect(cleanDocument(JSON.parse(JSON.stringify(cleaned)))).toEqual(cleaned)
        const ids = blocksOf(cleaned).map(({ id }) => id)
        expect(new Set(ids).size).toBe(ids.length)
        for (const { columns } of cleaned.rows)
          expect(columns.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1)
      }
    }),
    { numRuns: 400 },
  )
})

test('no link leads anywhere but to the web, a mailbox or a telephone', () => {
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.webUrl(), word), (text) => {
      expect(safeLink(text)).toMatch(/^($|https?:\/\/|mailto:|tel:)/i)
    }),
  )
})

test.each([
  ['javascript:alert(1)', ''],
  [' JaVaScRiPt:alert(1)', ''],
  ['data:text/html,<script>', ''],
  ['//evil.example', ''],
  ['galewright.example/kites', 'https://galewright.example/kites'],
  ['HTTPS://galewright.example', 'HTTPS://galewright.example'],
  ['mailto:hello@galewright.example', 'mailto:hello@galewright.example'],
  [7, ''],
  [null, ''],
])('the link %j becomes %j', (given, taken) => expect(safeLink(given)).toBe(taken))

test('rich text keeps its words and known marks and drops the rest', () => {
  const text = cleanRichText({
    type: 'doc',
    content: [
      {
        type: 'paragraph',
        attrs: { textAlign: 'center', onclick: 'x' },
        content: [
          { type: 'text', text: 'Wind ', marks: [{ type: 'bold' }, { type: 'blink' }] },
          {
            type: 'text',
            text: 'here',
            marks: [{ type: 'link', attrs: { href: 'javascript:x' } }],
          },
          { type: 'fillIn', attrs: { expression: 'person.town }}{% raw %}' } },
          { type: 'iframe', attrs: { src: 'https://x.example' } },
        ],
      },
      {
        type: 'bulletList',
        content: [{ type: 'listItem', content: [{ type: 'paragraph' }] }, { type: 'paragraph' }],
      },
      { type: 'orderedList', content: [] },
    ],
  })
  expect(text.content).toHaveLength(2)
  expect(text.content[0]).toMatchObject({ attrs: { textAlign: 'center' } })
  const [bold, link, fillIn] = inlinesOf(text.content)
  expect(bold).toEqual({ type: 'text', text: 'Wind ', marks: [{ type: 'bold' }] })
  expect(link).toEqual({
    type: 'text',
    text: 'here',
    marks: [{ type: 'link', attrs: { href: '' } }],
  })
  expect(fillIn).toEqual({ type: 'fillIn', attrs: { expression: 'person.town  raw ' } })
})

test('characters that mark slots while a letter is compiled cannot come from outside', () => {
  const [node] = inlinesOf(
    cleanRichText({
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'a\uE000b\u0000c' }] }],
    }).content,
  )
  expect(node).toEqual({ type: 'text', text: 'abc' })
})
