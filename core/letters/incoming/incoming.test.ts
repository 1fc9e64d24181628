import fc from 'fast-check'
import { expect, test } from 'vitest'
import { cleanDocument } from '../clean'
import { blocksOf, type Block, type Letter } from '../document'
import { fillInsOf } from '../fill-ins'
import { plainInline } from '../rich-text'
import { compileLetter, letterSource } from '../rendering'
import { mjmlToHtml } from '../rendering/compile'
import { templates } from '../templates'
import { made, steps } from '../arbitrary'
import { pastedLine, pastedText, readLetterFile, withLetterInside, type IncomingLetter } from '.'
import { madeUpFrame as frame } from '../rendering/made-up'
import { withStylesInline } from './inline-styles'

function read(text: string): IncomingLetter {
  const got = readLetterFile(text)
  if ('problem' in got) throw new Error(got.problem)
  return got
}
const page = (body: string, head = '') =>
  `<!doctype html><html><head>${head}</head><body>${body}</body></html>`
const blocks = (text: string) =>
  blocksOf(read(text).letter.document).filter(({ kind }) => kind !== 'footer')
const kinds = (text: string) => blocks(text).map(({ kind }) => kind)
const wordsOf = (block: Block) =>
  'text' in block ? plainInline(block.text) : 'label' in block ? block.label : ''

const said = (one: Letter, kind: string) =>
  blocksOf(one.document)
    .filter((block) => block.kind === kind)
    .map(wordsOf)

/** The words of the footers, of which a letter has one. */
const footers = (one: Letter) => said(one, 'footer')

test.each(templates)('$name comes back from its own MJML', async ({ letter }) => {
  const { letter: back } = read(await letterSource(withLinks(letter), frame, 'mjml'))
  expect(back.subject).toBe(letter.subject.replace(/\{\{[^{}]*\}\}/g, '').trim())
  expect(said(back, 'heading')).toEqual(said(letter, 'heading'))
  for (const label of said(letter, 'button')) expect(said(back, 'button')).toContain(label)
  const columns = (one: Letter) => one.document.rows.filter((row) => row.columns.length > 1).length
  expect(columns(back)).toBe(columns(letter))
  expect(footers(back)).toEqual(footers(letter))
  const fills = (one: Letter) => new Set(fillInsOf(one).map(({ fillIn }) => fillIn.path))
  for (const path of fills({ ...letter, subject: '', previewText: '' }))
    expect(fills(back)).toContain(path)
})

test.each(templates)('$name comes back from its own HTML', async ({ letter }) => {
  const { letter: back } = read(await letterSource(withLinks(letter), frame, 'html'))
  expect(said(back, 'heading')).toEqual(said(letter, 'heading'))
  for (const label of said(letter, 'button')) expect(said(back, 'button')).toContain(label)
  expect(footers(back)).toEqual(footers(letter))
  const columns = (one: Letter) => one.document.rows.filter((row) => row.columns.length > 1).length
  expect(columns(back)).toBeGreaterThanOrEqual(columns(letter))
  await expect(compileLetter(back, frame)).resolves.toBeDefined()
})

test('JSON is the letter itself; links to stamps of another account are none here', () => {
  const { letter } = templates[0]!
  expect(read(JSON.stringify(letter)).letter).toEqual(letter)
  const stamped = structuredClone(letter)
  stamped.document.rows[0]!.stamp = 7
  expect(read(JSON.stringify(stamped)).letter).toEqual(letter)
  expect(readLetterFile('{"a": 1}')).toEqual({ problem: 'This JSON is not a letter of Satchel.' })
  expect(readLetterFile('{')).toMatchObject({ problem: expect.stringMatching(/not JSON/) })
})

test('whatever the letter, it comes back equal from its JSON, its MJML and its HTML', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...templates),
      steps,
      fc.string({ unit: 'grapheme', maxLength: 60 }),
      async ({ letter }, changes, subject) => {
        const document = cleanDocument(made(letter.document, 'law', changes))!
        const own: Letter = { subject, previewText: letter.previewText, document }
        expect(read(JSON.stringify(own)).letter).toEqual(own)
        for (const format of ['mjml', 'html'] as const) {
          const file = withLetterInside(await letterSource(own, frame, format), own, format)
          expect([format, read(file)]).toEqual([format, { letter: own, notUnderstood: [] }])
          // As another program may save it: other ends of lines, other indents.
          expect(read(file.replaceAll('\n', '\r\n  ')).letter).toEqual(own)
        }
      },
    ),
    { numRuns: 25 },
  )
}, 120_000)

test('a file that was changed elsewhere is what it says now, not what rides along in it', async () => {
  const letter = withLinks(templates[0]!.letter)
  const [heading] = said(letter, 'heading')
  for (const format of ['mjml', 'html'] as const) {
    const file = withLetterInside(await letterSource(letter, frame, format), letter, format)
    const back = read(file.replace(heading!, 'Quite another wind')).letter
    expect(said(back, 'heading')[0]).toBe('Quite another wind')
    // What rides along is trusted as little as any file.
    const inside = /: [0-9a-z]+ ([A-Za-z0-9+/=]+) -->/.exec(file)![1]!
    for (const forged of ['AAAA', btoa('{"a":1}'), btoa('[1'), '====', inside.slice(0, 40)])
      expect('letter' in readLetterFile(file.replace(inside, forged))).toBe(true)
  }
  const mjml = withLetterInside(await letterSource(letter, frame, 'mjml'), letter, 'mjml')
  await expect(mjmlToHtml(mjml)).resolves.toContain('<html')
})

test('a letter in HTML as others make them: tables for the layout, a hidden line, a button in a cell', () => {
  const html = page(
    `<div style="display:none">Only this week</div>
    <table role="presentation"><tr><td bgcolor="#fff">
      <h1 style="color:#123456;text-align:center">Gale <em>season</em></h1>
      <p>Hello {{ person.first_name | default: "there" }}, the wind is <b>back</b>.<br>So are we.</p>
      <p>A second line.</p>
      <table><tr><td style="background-color:#22384f;padding:12px"><a href="https://kites.example/sale" style="padding:12px">See the sale</a></td></tr></table>
      <table><tr><td width="30%"><img src="https://kites.example/a.png" alt="A kite" width="160"></td>
        <td width="70%"><h2>Delta 7</h2><ul><li>Strong</li><li>Light</li></ul></td></tr></table>
      <hr>
      <p><a href="https://other.example/u/1">Unsubscribe</a> from this letter</p>
      <img src="https://other.example/o.gif" width="1" height="1">
    </td></tr></table>`,
    '<title>Force 5 till Sunday</title><style>p{color:red}</style>',
  )
  const { letter, notUnderstood } = read(html)
  expect(letter).toMatchObject({ subject: 'Force 5 till Sunday', previewText: 'Only this week' })
  expect(kinds(html)).toEqual([
    'heading',
    'text',
    'button',
    'picture',
    'heading',
    'text',
    'divider',
  ])
  const [heading, text, button, picture] = blocks(html)
  expect(heading).toMatchObject({ align: 'center', style: { ink: '#123456' }, level: 1 })
  expect(wordsOf(text!)).toBe(
    'Hello {{ person.first_name | default: "there" }}, the wind is back. So are we. A second line.',
  )
  expect(button).toMatchObject({
    label: 'See the sale',
    href: 'https://kites.example/sale',
    style: { accent: '#22384f' },
  })
  expect(picture).toMatchObject({ alt: 'A kite', width: 29 })
  const row = letter.document.rows.find(({ columns }) => columns.length === 2)!
  expect(row.columns[0]!.share).toBeCloseTo(0.3)
  expect(notUnderstood).toEqual([
    'their way to unsubscribe; the footer has ours',
    'a picture of one pixel, left out',
  ])
})

test('what a letter can’t hold stays as HTML and is named, and does no harm', async () => {
  const html = page(
    '<p>Vote:</p><form action="https://x.example"><input name="a"><button>Go</button></form><script>alert(1)</script><iframe src="https://x.example"></iframe><p onclick="x()"><a href="javascript:alert(1)">no</a></p>',
  )
  const { letter, notUnderstood } = read(html)
  expect(notUnderstood).toEqual(['a form', 'a script, left out', 'a frame'])
  expect(kinds(html)).toEqual(['text', 'html', 'html', 'text'])
  const compiled = await compileLetter(letter, frame)
  const out = compiled.parts.html.map((piece) => (typeof piece === 'string' ? piece : '')).join('')
  expect(out).not.toMatch(/<form|<input|<script|<iframe|onclick|javascript:/i)
})

test('tables of data, code, quotes and pictures with links', () => {
  expect(
    blocks(
      page(
        '<table><tr><th>Kite</th><th>Price</th></tr><tr><td>Delta</td><td>£42</td></tr></table><pre>a  b\nc</pre><blockquote>Fine.</blockquote><a href="https://k.example"><img src="https://k.example/x.jpg" alt="x"></a>',
      ),
    ),
  ).toMatchObject([
    {
      kind: 'table',
      head: true,
      cells: [
        ['Kite', 'Price'],
        ['Delta', '£42'],
      ],
    },
    { kind: 'code', code: 'a  b\nc' },
    { kind: 'quote' },
    { kind: 'picture', href: 'https://k.example', alt: 'x' },
  ])
})

test('parts of MJML that have no counterpart are named and keep their words', () => {
  const { letter, notUnderstood } = read(
    '<mjml><mj-head><mj-title>Hi</mj-title></mj-head><mj-body background-color="#eef"><mj-section><mj-column><mj-accordion><mj-accordion-element><mj-accordion-title>Why</mj-accordion-title><mj-accordion-text>Because</mj-accordion-text></mj-accordion-element></mj-accordion></mj-column></mj-section></mj-body></mjml>',
  )
  expect(notUnderstood).toEqual(['mj-accordion'])
  // What nothing says is as MJML has it.
  expect(letter.document.style).toEqual({ ground: '#eeeeff', ink: '#000000', size: 13 })
  const [raw] = blocksOf(letter.document)
  expect(raw).toMatchObject({ kind: 'html', html: expect.stringContaining('Because') })
})

test('what the head of MJML says of all elements holds where they say nothing themselves', () => {
  const [plain, own, quiet, button, picture] = blocks(
    `<mjml><mj-head><mj-attributes><mj-all font-family="Arial" /><mj-text color="#335577" font-size="17px" />
      <mj-button background-color="#aa3300" border-radius="12px" /><mj-class name="quiet" color="#777777" font-size="12px" />
    </mj-attributes></mj-head><mj-body><mj-section><mj-column>
      <mj-text>Plain</mj-text><mj-text color="#000000">Own</mj-text><mj-text mj-class="quiet">Quiet</mj-text>
      <mj-button href="https://k.example">Go</mj-button>
      <mj-image src="https://k.example/a.png" container-background-color="#eeeeee" />
    </mj-column></mj-section></mj-body></mjml>`,
  )
  expect(plain).toMatchObject({ style: { ink: '#335577', size: 17 } })
  expect(own).toMatchObject({ style: { ink: '#000000', size: 17 } })
  expect(quiet).toMatchObject({ style: { ink: '#777777', size: 12 } })
  expect(button).toMatchObject({ style: { accent: '#aa3300', corner: 12 } })
  expect(picture).toMatchObject({ style: { ground: '#eeeeee' } })
})

test('a hero stays on its picture, and the pictures of a carousel stand under each other', () => {
  const { letter, notUnderstood } = read(
    `<mjml><mj-body><mj-hero background-url="https://k.example/sea.jpg" background-color="#113355"><mj-text color="#ffffff">Wind</mj-text></mj-hero>
      <mj-section><mj-column><mj-carousel><mj-carousel-image src="https://k.example/1.png" /><mj-carousel-image src="https://k.example/2.png" /></mj-carousel></mj-column></mj-section></mj-body></mjml>`,
  )
  const [hero] = letter.document.rows
  expect(hero!.style).toEqual({ backdrop: 'https://k.example/sea.jpg', ground: '#113355' })
  expect(hero!.columns[0]!.blocks).toMatchObject([{ kind: 'text', style: { ink: '#ffffff' } }])
  const pictures = blocksOf(letter.document).filter(({ kind }) => kind === 'picture')
  expect(pictures).toMatchObject([
    { src: 'https://k.example/1.png' },
    { src: 'https://k.example/2.png' },
  ])
  expect(notUnderstood).toEqual(['mj-carousel: its pictures stand one under the other'])
})

test('text of HTML keeps its colour and size, from itself or from what it stands in', () => {
  expect(
    blocks(
      page(
        `<div style="color:#224466;font-size:18px"><p>All of it</p></div>
        <table role="presentation"><tr><td style="color:rgb(10,20,30)"><p><span style="font-size:13px">Small</span></p></td></tr></table>
        <p><font color="#990000">Red</font></p><p>Black with a <a href="https://k.example" style="color:#00f">link</a></p>`,
      ),
    ),
  ).toMatchObject([
    { kind: 'text', style: { ink: '#224466', size: 18 } },
    { kind: 'text', style: { ink: '#0a141e', size: 13 } },
    { kind: 'text', style: { ink: '#990000' } },
    { kind: 'text', style: { accent: '#0000ff' } },
  ])
})

test('one word of another colour splits no line, and is named as lost', () => {
  const { letter, notUnderstood } = read(
    page('Dear <span style="color:#d00000">Ann</span>, hello<br>and good wind'),
  )
  expect(blocksOf(letter.document).map(({ kind }) => kind)).toEqual(['text', 'footer'])
  expect(notUnderstood).toEqual(['the colour of “Ann”'])
})

test('what a style sheet says is read where it is written into the elements first', () => {
  const text = page('<p class="a">Green by its class</p>', '<style>.a{color:#008000}</style>')
  const got = readLetterFile(text, withStylesInline)
  if ('problem' in got) throw new Error(got.problem)
  expect(blocksOf(got.letter.document)[0]).toMatchObject({ style: { ink: '#008000' } })
})

test('columns that MJML wrote into HTML are columns again', () => {
  const { letter } = read(
    page(`<div><!--[if mso]><td><![endif]--><div class="mj-column-per-33-333 x"><p>One</p></div><!--[if mso]></td><td><![endif]-->
      <div class="mj-column-per-66-667"><p>Two</p></div></div>`),
  )
  const [row] = letter.document.rows
  expect(row!.columns.map(({ share }) => Math.round(share * 100))).toEqual([33, 67])
})

test('a file that is no letter says so', () => {
  expect(readLetterFile('Dear all')).toHaveProperty('problem')
  expect(readLetterFile('')).toHaveProperty('problem')
  expect(readLetterFile('<html><body></body></html>')).toHaveProperty('problem')
})

test('whatever the file: a letter that can be read and rendered, or a sentence', async () => {
  const tag = fc.constantFrom(
    'p',
    'h1',
    'table',
    'tr',
    'td',
    'a href="x.example"',
    'img src="/p/a"',
    'ul',
    'li',
    'div',
    'b',
    'script',
    'form',
    'pre',
    'th',
    'mjml',
    'mj-body',
    'mj-section',
    'mj-column',
    'mj-text',
    'br',
  )
  const piece = fc.oneof(
    fc.tuple(tag, fc.boolean()).map(([name, close]) => `<${close ? '/' : ''}${name}>`),
    fc.string({ maxLength: 12 }),
    fc.constantFrom('{{ person.town }}', '{{ x', '&amp;', '<!--', '-->', '\uE000'),
  )
  await fc.assert(
    fc.asyncProperty(fc.array(piece, { maxLength: 40 }), async (pieces) => {
      const got = readLetterFile(`<p>x</p>${pieces.join('')}`)
      if ('problem' in got) return
      const { document } = got.letter
      expect(cleanDocument(JSON.parse(JSON.stringify(document)))).toEqual(document)
      expect(blocksOf(document).filter(({ kind }) => kind === 'footer')).toHaveLength(1)
      await compileLetter(got.letter, frame)
    }),
    { numRuns: 150 },
  )
})

test('a file nested without end is refused, not followed', () => {
  expect(readLetterFile(`<html>${'<div>'.repeat(20_000)}x`)).toHaveProperty('problem')
})

test('fonts and lines around things stay; where a letter can’t hold them, it is said where that was', () => {
  const file = `<div style="font-family:'Trebuchet MS',sans-serif"><h1 style="font-family:Georgia,serif">Wind</h1>
    <div style="border:2px solid #7a2e1d"><p>Framed words</p><p>and more of them</p></div>
    <table><tr><td><div style="border:1px solid #ccc"><p>In a column</p></div></td><td><p>Beside it</p></td></tr></table>
    <table border="1"><tr><th>Beach</th><th align="right">Wind</th></tr><tr><td>Orrin</td><td>12</td></tr></table></div>`
  const got = readLetterFile(file)
  if ('problem' in got) throw new Error(got.problem)
  const { style, rows } = got.letter.document
  expect(style).toMatchObject({
    textFont: '"trebuchet ms",sans-serif',
    headingFont: 'georgia,serif',
  })
  expect(rows.find((row) => row.style?.border)?.style).toMatchObject({
    border: 2,
    borderColor: '#7a2e1d',
  })
  expect(got.notUnderstood).toEqual([
    'the line around “In a column”',
    'the lines around the cells of the table “BeachWind”',
    'where the words stand in the cells of the table “BeachWind”',
  ])
})

test('what is pasted from a word processor keeps its lists, marks and links, and no clutter', () => {
  const html = `<html xmlns:o="urn"><head><style>p.MsoNormal{margin:0}</style></head><body>
    <!--StartFragment--><h2>Line care</h2><p class="MsoNormal" style="text-align:center"><span style="font-family:Calibri;color:red">Wash <b>well</b></span><o:p></o:p></p>
    <p class="MsoListParagraph" style="mso-list:l0 level1 lfo1"><!--[if !supportLists]--><span style="mso-list:Ignore">·<span>  </span></span><!--[endif]-->Salt</p>
    <p class="MsoListParagraph" style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">·</span>Sand</p>
    <p class="MsoListParagraph" style="mso-list:l1 level1 lfo2"><span style="mso-list:Ignore">1.</span><a href="https://k.example">One</a></p><!--EndFragment--></body></html>`
  expect(pastedText(html).content).toMatchObject([
    { type: 'paragraph', content: [{ text: 'Line care', marks: [{ type: 'bold' }] }] },
    {
      type: 'paragraph',
      attrs: { textAlign: 'center' },
      content: [{ text: 'Wash ' }, { text: 'well', marks: [{ type: 'bold' }] }],
    },
    { type: 'bulletList', content: [{ type: 'listItem' }, { type: 'listItem' }] },
    {
      type: 'orderedList',
      content: [
        {
          content: [
            { content: [{ text: 'One', marks: [{ attrs: { href: 'https://k.example' } }] }] },
          ],
        },
      ],
    },
  ])
  expect(pastedLine('<p>One</p><p>two</p>')).toEqual([
    { type: 'text', text: 'One' },
    { type: 'text', text: ' ' },
    { type: 'text', text: 'two' },
  ])
})

/** Links that lead somewhere and pictures that are there, since empty ones are none to others. */
function withLinks(letter: Letter): Letter {
  const text = JSON.stringify(letter)
    .replaceAll('"href":""', '"href":"https://kites.example/x"')
    .replaceAll('"src":""', '"src":"https://kites.example/x.png"')
  return JSON.parse(text) as Letter
}
