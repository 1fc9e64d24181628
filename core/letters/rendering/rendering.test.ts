import { beforeAll, test, expect } from 'vitest'
import fc from 'fast-check'
import { makeToken, mouldMessage, pourMessage, textOf } from '../../delivery'
import { insertRow } from '../changes'
import { blocksOf, emptyLetter, newBlock, rowOf, type Block, type Letter } from '../document'
import { richText } from '../rich-text'
import { linksOf } from '../links'
import { compileLetter, type CompiledLetter } from './compile'
import { fillFor, mergeLetter, personContext } from './merge'
import { picksContext } from './picked'
import { madeUpFrame } from './made-up'

const frame = {
  ...madeUpFrame,
  postalAddress: 'Galewright Kites\n1 Slipway, Sandreach',
  listName: 'Wind <notes>',
  footer: { language: 'de', unsubscribe: 'Abmelden <jetzt>', yourPage: 'Ändern' },
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

test('entries of a feed are links with numbers, in HTML and text; only as many as are asked for', async () => {
  const entry = (n: number) => ({
    title: `Entry <${n}>`,
    href: `https://galewright.example/${n}`,
    about: `About ${n} & more`,
    day: '',
  })
  const block: Block = {
    ...{ id: 'feed', kind: 'feed', url: 'https://galewright.example/journal.xml', many: 2 },
    about: true,
    entries: [1, 2, 3].map(entry),
  }
  const document = insertRow(emptyLetter().document, 0, block)
  expect(linksOf(document).map(({ words }) => words)).toEqual(['Entry <1>', 'Entry <2>'])
  const compiled = await compileLetter({ subject: 's', previewText: '', document }, frame)
  const { html, text } = mergeLetter(
    compiled,
    personContext({ address: 'a@b.example', values: {} }, { list: '', sender: '', mailing: '' }),
  )
  expect(html).toMatch(
    /href="https:\/\/galewright.example\/2"[^>]*><b>Entry &lt;2&gt;<\/b><\/a><br>About 2 &amp; more/,
  )
  expect(text).toContain('Entry <1>\nAbout 1 & more\nhttps://galewright.example/1\n\nEntry <2>')
  expect(html + text).not.toContain('Entry 3')
})

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
  expect(html).toMatch(/href="#leave"[^>]*>Abmelden &lt;jetzt&gt;<.*href="#leave"[^>]*>Ändern</)
  expect(text).toContain('Abmelden <jetzt>: #leave\nÄndern: #leave')
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

test('picked products are the reader’s own, in HTML, in text and in their links', async () => {
  const block = { ...newBlock('picks', 'picked'), many: 2 } as Block
  const document = { version: 1 as const, rows: [rowOf(block), ...emptyLetter().document.rows] }
  const compiled = await compileLetter({ subject: 'Wind', previewText: '', document }, frame)
  const picked = (name: string, link: number) => ({
    ...{ name, link, price: '£42.00', picture: '/p/kite' },
    url: `https://kites.example/${link}?a=1&b=2`,
  })
  const context = personContext(
    { address: 'tove@inkpost.example', values: {} },
    { list: '', sender: '', mailing: '' },
    picksContext(new Map([['picked', [picked('Delta <7>', 10_007), picked('Gull', 10_003)]]])),
  )
  const merged = mergeLetter(compiled, context)
  expect(merged.html).toContain('Delta &lt;7&gt;')
  expect(merged.html).toContain('href="https://kites.example/10007?a=1&amp;b=2"')
  expect(merged.text).toContain('Gull, £42.00\nhttps://kites.example/10003?a=1&b=2')
  const key = Buffer.alloc(32, 7)
  const sender = {
    ...{ name: 'G', address: 'hello@kites.example', url: 'https://mail.example' },
    list: { key: 'wind', name: 'Wind' },
    replies: 'sender' as const,
  }
  const { raw } = pourMessage(
    mouldMessage(3, compiled.parts, sender, key),
    { personId: 5, address: 'tove@inkpost.example', name: 'Tove' },
    fillFor(compiled, context),
    0,
  )
  const plain = textOf(raw).replace(/=\r\n/g, '')
  const click = `https://mail.example/c/${makeToken(key, 'click', 3, 5)}`
  expect(plain).toContain(`${click}/10007`)
  expect(plain).toContain(`${click}/10003`)
  expect(plain).not.toContain('kites.example/1000')
})

test('links in an author’s own HTML are counted like any other, each under its own number', async () => {
  const html = (text: string) => ({ ...newBlock('html', 'own'), html: text }) as Block
  const button = { ...newBlock('button', 'go'), href: 'https://kites.example/last' } as Block
  const tag = fc.constantFrom(
    ...['<a href="https://a.example">one</a>', '<a href="https://b.example/?x=1&amp;y=2">two</a>'],
    ...[
      '<a href="mailto:x@y.example">mail</a>',
      '<a href="javascript:x">no</a>',
      '<script>',
      '<p>',
    ],
    ...['</script>', '<title>', '</title>', '<option>', '<textarea>', '</textarea>', '<!--', '-->'],
  )
  await fc.assert(
    fc.asyncProperty(fc.array(tag, { maxLength: 10 }), async (pieces) => {
      const rows = [rowOf(html(pieces.join(''))), rowOf(button), ...emptyLetter().document.rows]
      const document = { version: 1 as const, rows }
      const compiled = await compileLetter({ subject: 'W', previewText: '', document }, frame)
      const links = linksOf(document)
      expect(links.at(-1)!.url).toBe('https://kites.example/last')
      const numbers = compiled.parts.html.flatMap((piece) =>
        typeof piece !== 'string' && 'link' in piece ? [piece.link] : [],
      )
      expect(numbers.at(-1)).toBe(links.length - 1)
      for (const no of numbers) expect(links[no]).toBeDefined()
      const text = compiled.parts.text.findLast(
        (piece) => typeof piece !== 'string' && 'link' in piece,
      )
      expect(text).toEqual({ link: links.length - 1 })
    }),
    { numRuns: 60 },
  )
})

test('a footer is told in each reader’s own language where it is known, and else as for everybody', async () => {
  const byReader = { ...frame, footer: { ...frame.footer, byReader: true } }
  const told = await compileLetter(letter, byReader)
  const merged = (footer?: Record<string, string>) =>
    mergeLetter(
      told,
      personContext(
        { address: 'a@b.example', values: {} },
        { list: '', sender: '', mailing: '' },
        {},
        footer ? { footer } : {},
      ),
    )
  const theirs = merged({ unsubscribe: 'Se désabonner <ici>', yourPage: 'Modifier' })
  expect(theirs.html).toContain('Se désabonner &lt;ici&gt;')
  expect(theirs.text).toContain('Se désabonner <ici>: #leave')
  expect(theirs.text).not.toContain('Abmelden')
  const others = merged()
  expect(others.html).toContain('Abmelden &lt;jetzt&gt;')
  expect(others.text).toContain('Ändern: ')
})
