import { beforeAll, test, expect } from 'vitest'
import fc from 'fast-check'
import { defaultLetterhead } from '../letterhead'
import { blocksOf, rowOf, type Letter } from '../document'
import { richText } from '../rich-text'
import { linksOf } from '../links'
import { compileLetter, type CompiledLetter } from './compile'
import { mergeLetter, personContext } from './merge'

const frame = {
  letterhead: defaultLetterhead,
  postalAddress: 'Galewright Kites\n1 Slipway, Sandreach',
  senderName: 'Galewright Kites',
  listName: 'Wind <notes>',
  url: 'https://mail.galewright.example',
}
const letter: Letter = {
  subject: 'Wind for {{ person.town | default: "you" }}',
  previewText: 'Force 5 & rising',
  document: {
    version: 1,
    rows: [
      rowOf({
        id: 'h',
        kind: 'heading',
        level: 1,
        align: 'left',
        text: richText([
          { type: 'text', text: 'Up, ' },
          { type: 'fillIn', attrs: { expression: 'person.first_name | default: "there"' } },
        ]),
      }),
      rowOf({
        id: 't',
        kind: 'text',
        text: richText([
          { type: 'text', text: 'See ' },
          {
            type: 'text',
            text: 'the <forecast>',
            marks: [{ type: 'link', attrs: { href: 'https://galewright.example/f?a=1&b=2' } }],
          },
          {
            type: 'text',
            text: ' now',
            marks: [
              { type: 'bold' },
              { type: 'link', attrs: { href: 'https://galewright.example/f?a=1&b=2' } },
            ],
          },
        ]),
      }),
      rowOf({
        id: 'p',
        kind: 'picture',
        src: '/p/1-a.png',
        alt: 'A "delta"',
        href: 'https://galewright.example/delta',
        width: 100,
      }),
      rowOf({
        id: 'b',
        kind: 'button',
        label: 'Go <now>',
        href: 'https://galewright.example/go',
        align: 'left',
      }),
      rowOf({ id: 'f', kind: 'footer', text: richText('You asked for it.') }),
    ],
  },
}
let compiled: CompiledLetter
beforeAll(async () => {
  compiled = await compileLetter(letter, frame)
})
const about = { list: 'Wind notes', sender: 'Galewright', mailing: 'm' }
const readBy = (values: Record<string, string>) =>
  mergeLetter(compiled, personContext({ address: 'a@b.example', values }, about))

test('one letter, different readers', () => {
  const tove = readBy({ first_name: 'Tove <script>', town: 'Orrin' })
  expect(tove.subject).toBe('Wind for Orrin')
  expect(tove.html).toContain('Up, Tove &lt;script&gt;')
  expect(tove.html).not.toContain('<script>')
  expect(tove.text).toContain('Up, Tove <script>')
  const nobody = readBy({})
  expect(nobody.subject).toBe('Wind for you')
  expect(nobody.html).toContain('Up, there')
})

test('text from the author is escaped, and the footer has the address and the way out', () => {
  const { html, text } = readBy({})
  expect(html).toContain('the &lt;forecast&gt;')
  expect(html).toContain('Go &lt;now&gt;')
  expect(html).toContain('alt="A &quot;delta&quot;"')
  expect(html).toContain('1 Slipway, Sandreach')
  expect(html).toMatch(/href="#leave"[^>]*>Leave Wind &lt;notes&gt;/)
  expect(text).toContain('Leave Wind <notes>: #leave')
})

test('every link has one slot in the HTML and one in the text, with the same number', () => {
  const slots = (pieces: CompiledLetter['parts']['html']) =>
    pieces.flatMap((piece) => (typeof piece !== 'string' && 'link' in piece ? [piece.link] : []))
  expect(compiled.links.map(({ url }) => url)).toEqual([
    'https://galewright.example/f?a=1&b=2',
    'https://galewright.example/delta',
    'https://galewright.example/go',
  ])
  expect(slots(compiled.parts.html)).toEqual([0, 1, 2])
  expect(slots(compiled.parts.text)).toEqual([0, 1, 2])
})

test('the same document gives the same bytes', async () => {
  const again = await compileLetter(JSON.parse(JSON.stringify(letter)) as Letter, frame)
  expect(again.parts).toEqual(compiled.parts)
})

test('numbers of links agree between document, HTML and text for any text', async () => {
  const piece = fc.record({
    text: fc.string({ unit: 'grapheme', minLength: 1, maxLength: 8 }),
    href: fc.option(fc.constantFrom('https://a.example/', 'https://b.example/')),
  })
  await fc.assert(
    fc.asyncProperty(fc.array(piece, { minLength: 1, maxLength: 8 }), async (pieces) => {
      const text = richText(
        pieces.map(({ text: words, href }) => ({
          type: 'text' as const,
          text: words,
          ...(href ? { marks: [{ type: 'link' as const, attrs: { href } }] } : {}),
        })),
      )
      const document = { version: 1 as const, rows: [rowOf({ id: 't', kind: 'text', text })] }
      const { parts, links } = await compileLetter(
        { subject: 's', previewText: '', document },
        frame,
      )
      const count = (list: typeof parts.html) =>
        list.filter((p) => typeof p !== 'string' && 'link' in p).length
      expect(links).toEqual(linksOf(document))
      expect(count(parts.html)).toBe(links.length)
      expect(count(parts.text)).toBe(links.length)
    }),
    { numRuns: 25 },
  )
  expect(blocksOf(letter.document)).toHaveLength(5)
})
