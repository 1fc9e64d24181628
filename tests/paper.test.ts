import sharp from 'sharp'
import { expect, test } from 'vitest'
import { footerNow } from '../cases/letters'
import {
  blockKinds,
  blocksOf,
  emptyLetter,
  newBlock,
  type Block,
  type Inline,
  type LetterDocument,
  type Row,
} from '../core/letters'
import { readLetterhead } from '../core/letters/letterhead'
import { richText } from '../core/letters/rich-text'
import { compileLetter, mergeLetter, personContext, picksContext } from '../core/letters/rendering'
import { templates } from '../core/letters/templates'
import { one, q } from '../database'
import { readAccount } from '../database/account'
import { letterOf, saveLetter } from '../database/letters'
import { mailingById } from '../database/mailings'
import { listById } from '../database/people'
import { visit } from './browser'
import { demoInBrowser } from './demo-in-browser'

/** The paper is what goes out: each block has the place, the size and the lines there that readers get at 600 px. */
const { satchel, visitor, page } = demoInBrowser(60)

const WORDS =
  'The kite that won last year in Sandreach flies in nine knots already, and takes thirty without complaint.'
/** Pictures by their source, and how high they are for their width. */
const shapes = { '/p/wide': 2 / 3, '/p/square': 1 }

/** A block of every kind, with words enough for several lines. */
function filled(kind: Block['kind'], id: string): Block {
  const block = newBlock(kind, id)
  switch (block.kind) {
    case 'heading':
      return { ...block, text: richText(`Wind at last, and more of it than ${WORDS.slice(0, 40)}`) }
    case 'text':
      return {
        ...block,
        text: {
          type: 'doc',
          content: [
            ...richText(WORDS).content,
            { type: 'paragraph' },
            {
              type: 'bulletList',
              content: [
                { type: 'listItem', content: richText('Bring gloves').content as never },
                { type: 'listItem', content: richText(WORDS).content as never },
              ],
            },
            ...richText('Until  Sunday.').content,
          ],
        },
      }
    case 'quote':
      return { ...block, text: richText(WORDS), by: 'Maud, Hale Point' }
    case 'picture':
    case 'film':
      return { ...block, src: '/p/wide', alt: 'A kite' }
    case 'button':
      return { ...block, label: 'See the forecast', href: 'https://galewright.example/' }
    case 'product': {
      const words = { name: 'Delta 7', about: WORDS, price: '£64.00', label: 'Have a look at it' }
      return { ...block, ...words, src: '/p/square' }
    }
    case 'table':
      return {
        ...block,
        head: true,
        cells: [
          ['Beach', 'Wind'],
          ['Hale Point', WORDS],
          ['Orrin', '12 knots'],
        ],
      }
    case 'social': {
      const names = [
        'Our workshop',
        'The beach reports',
        'Where we fly on Sundays',
        'Films',
        'Shop',
      ]
      return { ...block, links: names.map((name) => ({ name, href: 'https://kites.example/' })) }
    }
    case 'feed': {
      const entry = { title: 'Line care in five minutes', href: 'https://kites.example/', day: '' }
      return { ...block, about: true, entries: [1, 2].map(() => ({ ...entry, about: WORDS })) }
    }
    case 'code':
      return { ...block, code: `tie(line)\n  twice()\n\n${WORDS}` }
    case 'html':
      return {
        ...block,
        html: `<h2>Own words</h2><p>${WORDS} <a href="https://kites.example/">More</a></p><ul><li>One</li></ul><table width="50%" align="center"><tr><td>A</td><td>B</td></tr></table>`,
      }
    case 'footer':
      return { ...block, text: richText(`You get this since you asked for it. ${WORDS}`) }
    default:
      return block
  }
}
const row = (id: string, blocks: Block[], style?: Row['style']): Row => ({
  id,
  columns: [{ share: 1, blocks }],
  ...(style ? { style } : {}),
})
const kinds = blockKinds.map(({ kind }) => kind).filter((kind) => kind !== 'footer')

/** Every kind alone, in narrow columns, and with a look of its own; then every template with its words. */
function everything(): LetterDocument {
  const alone = kinds.map((kind) => row(`r-${kind}`, [filled(kind, `a-${kind}`)]))
  const beside = kinds.map((kind, i): Row => {
    const other = kinds[(i + 5) % kinds.length]!
    const columns = [
      { share: 1 / 3, blocks: [filled(kind, `c-${kind}`)] },
      { share: 2 / 3, blocks: [filled(other, `d-${kind}`), filled('text', `e-${kind}`)] },
    ]
    return { id: `q-${kind}`, columns }
  })
  const pictures: Row = {
    id: 'pictures',
    columns: ['/p/wide', '/p/square', '/p/wide'].map((src, i) => ({
      share: 1 / 3,
      blocks: [
        { ...filled('picture', `p-${i}`), src } as Block,
        filled('heading', `h-${i}`),
        filled('button', `b-${i}`),
      ],
    })),
  }
  const looks = kinds.map((kind) =>
    row(
      `s-${kind}`,
      [
        {
          ...filled(kind, `l-${kind}`),
          style: {
            size: 19,
            space: 21,
            ground: '#eef3e4',
            corner: 14,
            border: 3,
            accent: '#7a2e1d',
          },
        },
      ],
      { ground: '#f7f2e2', space: 18, border: 2, textFont: 'Georgia, "Times New Roman", serif' },
    ),
  )
  const shipped = templates.flatMap(({ letter }, i) =>
    letter.document.rows
      .filter(({ columns }) =>
        columns.every(({ blocks }) => blocks.every((b) => b.kind !== 'footer')),
      )
      .map(({ shownTo: _, ...part }) => ({
        ...part,
        id: `t${i}-${part.id}`,
        columns: part.columns.map((column) => ({
          ...column,
          blocks: column.blocks.map((block) => written(block, `t${i}-${block.id}`)),
        })),
      })),
  )
  const rows = [...alone, ...beside, pictures, ...looks, ...shipped]
  return { ...emptyLetter().document, rows: [...rows, row('end', [filled('footer', 'footer')])] }
}

/** A template's block without what differs from reader to reader, and with its pictures. */
function written({ shownTo: _, hidden: __, ...block }: Block, id: string): Block {
  const plain = (nodes: Inline[]): Inline[] =>
    nodes.map((node) => (node.type === 'fillIn' ? { type: 'text', text: 'Tove' } : node))
  const named = { ...block, id } as Block
  if ('text' in named)
    return {
      ...named,
      text: JSON.parse(JSON.stringify(named.text), (key, value: unknown) =>
        key === 'content' && Array.isArray(value) ? plain(value as Inline[]) : value,
      ) as never,
    } as Block
  if ('src' in named && !named.src) return { ...named, src: '/p/wide', alt: 'A kite' } as Block
  return named.kind === 'feed'
    ? { ...named, entries: (filled('feed', id) as typeof named).entries }
    : named
}

interface Drawn {
  left: number
  top: number
  width: number
  height: number
  lines: string[]
}
/** Boxes of blocks, px from the upper left corner of the letter, and the lines of their words. */
const MEASURE = `((origin, boxes) => {
  const at = origin.getBoundingClientRect()
  const drawn = {}
  for (const [id, elements] of Object.entries(boxes)) {
    const rects = elements.map((element) => element.getBoundingClientRect())
    const top = Math.min(...rects.map((r) => r.top)), bottom = Math.max(...rects.map((r) => r.bottom))
    const lines = []
    let last = null
    const walk = (node) => {
      if (node.nodeType === 3) {
        for (const word of node.data.matchAll(/\\S+/g)) {
          const range = document.createRange()
          range.setStart(node, word.index); range.setEnd(node, word.index + word[0].length)
          const box = range.getClientRects()[0]
          if (!box) continue
          if (last !== null && Math.abs(box.bottom - last) < 6) lines.push(lines.pop() + ' ' + word[0])
          else lines.push(word[0])
          last = box.bottom
        }
        return
      }
      if (['STYLE', 'TEXTAREA', 'SCRIPT'].includes(node.nodeName)) return
      for (const child of (node.shadowRoot ?? node).childNodes) walk(child)
    }
    for (const element of elements) walk(element)
    drawn[id] = { left: rects[0].left - at.left, top: top - at.top, width: rects[0].width, height: bottom - top, lines: lines.map((line) => line.replace(/[\\u200b\\s]+/g, '')) }
  }
  return drawn
})`

test('each block stands where readers get it, as large, with the same lines', async () => {
  const document = everything()
  const id = one(
    satchel.db,
    q.selectFrom('mailings').select('id').where('name', '=', 'Wind notes 47'),
  )!.id
  const mailing = mailingById(satchel.db, id)!
  const { version } = letterOf(satchel.db, mailing.letter_id)
  const letter = { subject: 'Wind', previewText: 'It rises.', document }
  expect(
    saveLetter(satchel.db, mailing.letter_id, letter, version, { id: 1, name: 'Maud' }, Date.now()),
  ).not.toBeNull()

  const png = (height: number) =>
    sharp({ create: { width: 600, height, channels: 3, background: '#7c8f45' } })
      .png()
      .toBuffer()
  const [wide, square] = [await png(400), await png(600)]
  const pictures = (at: typeof visitor.page) =>
    at.route('**/p/**', (route) =>
      route.fulfill({
        body: route.request().url().includes('square') ? square : wide,
        contentType: 'image/png',
      }),
    )
  await pictures(page())
  await page().setViewportSize({ width: 1500, height: 900 })
  await page().goto(`${satchel.url}/mail/${id}/letter`)
  await page().locator('[data-block="footer"]').waitFor()
  await page().evaluate(
    'Promise.all([...document.images].map((image) => { image.loading = "eager"; return image.complete || new Promise((done) => { image.onload = image.onerror = done }) })).then(() => document.fonts.ready).then(() => true)',
  )
  await page().locator('[data-kind="html"] table').first().waitFor({ state: 'attached' })
  const paper = (await page().evaluate(
    `${MEASURE}(document.querySelector('.paper'), Object.fromEntries([...document.querySelectorAll('[data-block]')].map((e) => [e.dataset.block, [e]])))`,
  )) as Record<string, Drawn>

  const account = readAccount(satchel.db)!
  const frame = {
    letterhead: readLetterhead(account.letterhead),
    postalAddress: account.postal_address,
    senderName: 'Galewright Kites',
    listName: listById(satchel.db, mailing.list_id!)!.name,
    footer: footerNow(satchel.db, mailing.list_id),
    url: 'https://mail.galewright.example',
    shapes,
    named: true,
  }
  const sorts = {
    viewed: 'Looked at',
    together: 'Goes with it',
    best: 'Sells best',
    new: 'New',
    began: 'Began with it',
  }
  const picks = new Map(
    blocksOf(document).flatMap((block) => {
      const product = { price: '£0.00', picture: 'https://kites.example/p/wide', url: '/', link: 1 }
      return block.kind === 'picks'
        ? [[block.id, Array(4).fill({ ...product, name: sorts[block.by] })] as const]
        : []
    }),
  )
  const context = personContext(
    { address: 'tove@inkpost.example', values: {} },
    { list: 'Wind notes', sender: 'Galewright', mailing: 'Wind' },
    picksContext(picks),
  )
  const { html } = mergeLetter(await compileLetter(letter, frame), context)
  const reader = await visit()
  await pictures(reader.page)
  await reader.page.setViewportSize({ width: 600, height: 900 })
  await reader.page.setContent(html, { waitUntil: 'load' })
  const sent = (await reader.page.evaluate(`(() => {
    const boxes = {}
    for (const cell of document.querySelectorAll('[class*="b-"]')) {
      const name = [...cell.classList].find((one) => one.startsWith('b-'))
      if (name) (boxes[name.slice(2)] ??= []).push(cell)
    }
    return ${MEASURE}(document.querySelector('div[style*="max-width"]'), boxes)
  })()`)) as Record<string, Drawn>
  await reader.close()

  const apart = blocksOf(document).flatMap((block) => {
    const [here, there] = [paper[block.id], sent[block.id]]
    if (!here || !there) return [`${block.id}: ${here ? 'not sent' : 'not on the paper'}`]
    const sides = (['left', 'top', 'width', 'height'] as const)
      .filter((side) => Math.abs(here[side] - there[side]) > 2)
      .map((side) => `${side} ${here[side].toFixed(1)} for ${there[side].toFixed(1)}`)
    const lines =
      here.lines.join('|') === there.lines.join('|')
        ? []
        : [`lines ${here.lines.join('|')} for ${there.lines.join('|')}`]
    return sides.length + lines.length ? [`${block.id}: ${[...sides, ...lines].join(', ')}`] : []
  })
  expect(blocksOf(document).length).toBeGreaterThan(150)
  expect(apart).toEqual([])
})

test('writing in a block leaves it as large as it is', async () => {
  for (const kind of ['heading', 'text', 'quote', 'button', 'table', 'code', 'product']) {
    const block = page().locator(`[data-block="a-${kind}"]`)
    await block.scrollIntoViewIfNeeded()
    const before = (await block.boundingBox())!
    await block.getByRole('textbox').first().click()
    await page().locator(`[data-block="a-${kind}"].outline-2`).waitFor()
    const after = (await block.boundingBox())!
    expect([kind, Math.round(after.width), Math.round(after.height)]).toEqual([
      kind,
      Math.round(before.width),
      Math.round(before.height),
    ])
  }
})

test('the browser’s console said no error', () => expect(visitor.errors).toEqual([]))
