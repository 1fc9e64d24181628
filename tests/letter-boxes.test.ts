import sharp from 'sharp'
import { afterAll, beforeAll, expect, test } from 'vitest'
import {
  blockNames,
  emptyLetter,
  isStacked,
  newBlock,
  type Block,
  type BlockKind,
  type LetterDocument,
  type Row,
} from '../core/letters'
import { richText } from '../core/letters/rich-text'
import { compileLetter, mergeLetter, personContext, picksContext } from '../core/letters/rendering'
import { madeUpFrame } from '../core/letters/rendering/made-up'
import { templates } from '../core/letters/templates'
import { visit, type Visitor } from './browser'

/** Letters as Chromium lays them out: what stands under each other has the same edges, and all can be read and pressed. */
let visitor: Visitor
beforeAll(async () => {
  visitor = await visit()
  const image = { width: 600, height: 400, channels: 3 as const, background: '#7c8f45' }
  const body = await sharp({ create: image }).png().toBuffer()
  // Every picture, wherever it is said to be.
  await visitor.page.route('**/*', (route) =>
    route.request().resourceType() === 'image'
      ? route.fulfill({ body, contentType: 'image/png' })
      : route.abort(),
  )
})
afterAll(() => visitor.close())

const widths = [320, 375, 414, 600, 700]

/** As somebody has filled it in who chose pictures. */
function withPictures(document: LetterDocument): LetterDocument {
  const filled = (block: Block): Block =>
    'src' in block && block.src === '' ? ({ ...block, src: '/p/a', alt: 'A kite' } as Block) : block
  return {
    ...document,
    rows: document.rows.map((row) => ({
      ...row,
      columns: row.columns.map((column) => ({ ...column, blocks: column.blocks.map(filled) })),
    })),
  }
}

async function drawn(
  empty: LetterDocument,
  width: number,
  shapes: Readonly<Record<string, number>> = {},
) {
  const document = withPictures(empty)
  const letter = { subject: 'Wind', previewText: 'It rises.', document }
  const compiled = await compileLetter(letter, { ...madeUpFrame, shapes })
  const picked = { name: 'Delta 7', price: '£64', picture: '/p/d', url: '/delta', link: 1 }
  const picks = new Map(
    document.rows
      .flatMap(({ columns }) => columns.flatMap(({ blocks }) => blocks))
      .filter(({ kind }) => kind === 'picks')
      .map(({ id }) => [id, [picked, picked, picked, picked]] as const),
  )
  const context = personContext(
    { address: 'tove@inkpost.example', values: { first_name: 'Tove' } },
    { list: 'Wind notes', sender: 'Galewright', mailing: 'Wind' },
    picksContext(picks),
  )
  const { html } = mergeLetter(compiled, context)
  await visitor.page.setViewportSize({ width, height: 900 })
  await visitor.page.setContent(html, { waitUntil: 'load' })
  return (await visitor.page.evaluate(MEASURE)) as Measured
}

interface Box {
  left: number
  right: number
}
interface Measured {
  /** For each row that has columns: for each column, the room of each of its blocks. */
  rows: { columns: (Box & { blocks: Box[] })[] }[]
  /** Pictures that fill their column on wide, and the room they have. */
  pictures: { shown: Box; room: Box }[]
  /** Pictures from edge to edge, and the paper. */
  wide: { shown: Box; room: Box }[]
  low: string[]
  small: string[]
  overflow: number
}

const MEASURE = `(() => {
  const rows = [], pictures = [], wide = []
  const room = (cell) => {
    const box = cell.getBoundingClientRect(), style = getComputedStyle(cell)
    return { left: box.left + parseFloat(style.paddingLeft), right: box.right - parseFloat(style.paddingRight) }
  }
  const edges = (element) => {
    const { left, right } = element.getBoundingClientRect()
    return { left, right }
  }
  const shown = (element) => element.getBoundingClientRect().height > 2
  const sections = new Map()
  for (const column of document.querySelectorAll('.mj-outlook-group-fix')) {
    const section = column.closest('div[style*="max-width"]')
    const all = [...column.querySelectorAll(':scope > table > tbody > tr > td')].filter((cell) => cell.textContent.trim() || cell.querySelector('img[alt]:not([width="1"])'))
    const box = column.getBoundingClientRect()
    // From edge to edge of the paper, on purpose.
    const isWide = (cell) => cell.querySelector('img') && parseFloat(getComputedStyle(cell).paddingLeft) === 0
    const cells = all.filter((cell) => !isWide(cell))
    for (const cell of all.filter(isWide)) wide.push({ shown: edges(cell.querySelector('img')), room: edges(section) })
    if (cells.length === 0) continue
    if (!sections.has(section)) sections.set(section, [])
    sections.get(section).push({ left: box.left, right: box.right, blocks: cells.filter(shown).map(room) })
    for (const cell of cells) {
      const image = cell.querySelector(':scope > table img')
      if (image) pictures.push({ shown: { left: image.getBoundingClientRect().left, right: image.getBoundingClientRect().right }, room: room(cell) })
    }
  }
  for (const columns of sections.values()) rows.push({ columns })
  const low = [], small = []
  for (const link of document.querySelectorAll('a')) {
    if (!shown(link) || link.querySelector('img')) continue
    const around = link.closest('p, li, td, div')
    const alone = [...around.childNodes].every((node) => node === link || !node.textContent.trim() || (node.nodeType === 1 && node.tagName === 'A') || /^[\\s·]*$/.test(node.textContent))
    if (alone && link.getBoundingClientRect().height < 43.5) low.push(link.textContent + ' ' + link.getBoundingClientRect().height)
  }
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  while (walker.nextNode()) {
    const text = walker.currentNode
    if (!text.textContent.trim() || ['STYLE', 'SCRIPT'].includes(text.parentElement.tagName) || !shown(text.parentElement)) continue
    const style = getComputedStyle(text.parentElement)
    if (style.display !== 'none' && parseFloat(style.fontSize) < 13 && parseFloat(style.fontSize) > 2) small.push(text.textContent.trim().slice(0, 30) + ' ' + style.fontSize)
  }
  return { rows, pictures, wide, low, small, overflow: document.documentElement.scrollWidth - innerWidth }
})()`

const near = (a: number, b: number) => Math.abs(a - b) <= 1

/** Fails where boxes under each other differ at an edge by more than a pixel, or something is too small. */
function expectStraight(
  { rows, pictures, wide, low, small, overflow }: Measured,
  width: number,
  keeps: boolean,
) {
  expect(overflow, 'nothing is wider than the screen').toBeLessThanOrEqual(0)
  expect(low, 'what is pressed').toEqual([])
  expect(small, 'text').toEqual([])
  for (const { shown, room } of wide) expect(shown, 'from edge to edge').toEqual(room)
  const paper = rows.find(({ columns }) => columns.length === 1)!.columns[0]!.blocks[0]!
  for (const { columns } of rows) {
    for (const { blocks } of columns)
      for (const block of blocks) {
        expect(block.left, 'left in a column').toBeCloseTo(blocks[0]!.left, 0)
        expect(block.right, 'right in a column').toBeCloseTo(blocks[0]!.right, 0)
      }
    const filled = columns.filter(({ blocks }) => blocks.length)
    const isUnder = filled.every(({ left }) => near(left, filled[0]!.left))
    const edges = filled.map(({ blocks }) => blocks[0]!)
    if (isUnder && !keeps)
      for (const { left, right } of edges) expect([left, right]).toEqual([paper.left, paper.right])
    else {
      expect(Math.min(...edges.map(({ left }) => left)), 'the outer left').toBeCloseTo(
        paper.left,
        0,
      )
      expect(Math.max(...edges.map(({ right }) => right)), 'the outer right').toBeCloseTo(
        paper.right,
        0,
      )
    }
  }
  if (width < 480 && !keeps)
    for (const { shown, room } of pictures) {
      expect(shown.left, 'a picture at the left').toBeCloseTo(room.left, 0)
      expect(shown.right, 'a picture at the right').toBeLessThanOrEqual(room.right + 1)
    }
}

const keeps = (document: LetterDocument) =>
  document.rows.some((row) => row.columns.length > 1 && !isStacked(row))

for (const { key, letter } of templates)
  test(`${key} is straight at every width`, async () => {
    for (const width of widths)
      expectStraight(await drawn(letter.document, width), width, keeps(letter.document))
  })

/** A block of a kind as somebody has filled it in. */
function filled(kind: BlockKind, id: string): Block {
  const block = newBlock(kind, id)
  const link = 'https://galewright.example/delta'
  const words = richText('The wind comes from the south-west on Saturday, and stays.')
  const over: Partial<Record<BlockKind, object>> = {
    heading: { text: richText('A heading of some length') },
    text: { text: words },
    quote: { text: words, by: 'Orrin' },
    picture: { src: '/p/a', alt: 'A kite', href: link },
    film: { src: '/p/f', alt: 'How to fly', href: link },
    button: { href: link },
    table: {
      cells: [
        ['Kite', 'Wind'],
        ['Delta 7', '2 to 5'],
      ],
    },
    social: {
      links: [
        { name: 'Pictures', href: link },
        { name: 'Films', href: link },
      ],
    },
    product: { src: '/p/a', name: 'Delta 7', about: 'For light winds', price: '£64', href: link },
    feed: {
      url: link,
      entries: [
        {
          title: 'How to launch alone',
          about: 'Somebody holds it, or nobody does.',
          href: link,
          day: '',
        },
        { title: 'Tails', about: 'When to leave them off.', href: link, day: '' },
      ],
    },
    code: { code: 'wind = 12' },
    html: { html: '<p>Some words of our own.</p>' },
    footer: { text: words },
  }
  return { ...block, ...over[kind] } as Block
}

function besides(kind: BlockKind, many: number): Row {
  return {
    id: `row-${kind}-${many}`,
    columns: Array.from({ length: many }, (_, i) => ({
      share: 1 / many,
      blocks: [filled(kind, `${kind}-${many}-${i}`), filled('text', `text-${kind}-${many}-${i}`)],
    })),
  }
}

const kinds = (Object.keys(blockNames) as BlockKind[]).filter((kind) => kind !== 'footer')
for (const kind of kinds)
  test(`${kind} is straight alone, beside one and beside two others`, async () => {
    const document: LetterDocument = {
      version: 1,
      rows: [
        { id: 'first', columns: [{ share: 1, blocks: [filled('heading', 'first-heading')] }] },
        { id: 'alone', columns: [{ share: 1, blocks: [filled(kind, 'alone-block')] }] },
        ...(kind === 'picks' ? [] : [besides(kind, 2), besides(kind, 3)]),
        ...emptyLetter().document.rows,
      ],
    }
    for (const width of widths) expectStraight(await drawn(document, width), width, false)
  })

test('products that are picked stand one under the other on a phone, each as wide as the letter', async () => {
  const document: LetterDocument = {
    version: 1,
    rows: [
      { id: 'picked', columns: [{ share: 1, blocks: [filled('picks', 'picks')] }] },
      ...emptyLetter().document.rows,
    ],
  }
  await drawn(document, 375)
  const images = await visitor.page
    .locator('img[alt="Delta 7"]')
    .evaluateAll((all) => all.map((one) => one.getBoundingClientRect().width))
  expect(images).toHaveLength(3)
  for (const width of images) expect(width).toBeGreaterThan(300)
})

test('pictures of other shapes leave the buttons under them at one height, and no gap on a phone', async () => {
  const product = (id: string, src: string) => ({ ...filled('product', id), src }) as Block
  const document: LetterDocument = {
    version: 1,
    rows: [
      {
        id: 'three',
        columns: ['/p/wide', '/p/square', '/p/tall'].map((src, i) => ({
          share: 1 / 3,
          blocks: [product(`product-${i}`, src)],
        })),
      },
      ...emptyLetter().document.rows,
    ],
  }
  const shapes = { '/p/wide': 2 / 3, '/p/square': 1, '/p/tall': 1.5 }
  const sizes = { wide: [600, 400], square: [600, 600], tall: [600, 900] } as const
  await visitor.page.route(/\/p\/(wide|square|tall)/, async (route) => {
    const name = /\/p\/(wide|square|tall)/.exec(route.request().url())![1] as keyof typeof sizes
    const [width, height] = sizes[name]
    const image = { width, height, channels: 3 as const, background: '#7c8f45' }
    const body = await sharp({ create: image }).png().toBuffer()
    await route.fulfill({ body, contentType: 'image/png' })
  })
  await drawn(document, 700, shapes)
  const tops = () =>
    visitor.page
      .locator('td[bgcolor] > a')
      .evaluateAll((all) => all.map((one) => one.getBoundingClientRect().top))
  const wide = await tops()
  expect(wide).toHaveLength(3)

  expect(Math.max(...wide) - Math.min(...wide)).toBeLessThan(0.8)
  await drawn(document, 375, shapes)
  const gaps = await visitor.page
    .locator('img[alt="Delta 7"]')
    .evaluateAll((all) =>
      all.map((one) => getComputedStyle(one.closest('td[class]')!).paddingBottom),
    )
  expect(gaps.filter((gap) => gap !== '0px').every((gap) => gap === '8px')).toBe(true)
})
