import { chromium, type Page } from 'playwright-core'
import { blocksOf, emptyLetter, newBlock, type Block, type Letter } from '../core/letters'
import { rowOf } from '../core/letters/document'
import { richText } from '../core/letters/rich-text'
import { createMailing } from '../database/mailings'
import { listsWithCounts } from '../database/lists'
import { install } from '../tests/installation'
import type { Measure } from './harness'

const BLOCKS = 120
const KEYS = 300
/** Between two keys, ms: somebody who types fast. */
const PAUSE = 70

/**
 * What a key costs in a letter of 120 blocks, at the 95th percentile, against 16 ms: from the key to the end of all
 * that follows from it in the page, with styles and layout reckoned.
 */
export const typing: Measure = {
  name: 'typing',
  unit: 'ms',
  promise: { atMost: 1 },
  runs: 3,
  async run() {
    const satchel = await install({ demo: 200 })
    await satchel.start('web')
    const browser = await chromium.launch({
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
    })
    try {
      const [list] = listsWithCounts(satchel.db)
      const letter = longLetter()
      const id = createMailing(satchel.db, { name: 'Long', listId: list!.id, letter }, Date.now())
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
      await page.goto(satchel.enterUrl)
      await page.goto(`${satchel.url}/mail/${id}/letter`)
      const times = (await typed(page)).sort((a, b) => a - b)
      const at = (share: number) => times[Math.floor(times.length * share)]!
      return {
        ours: at(0.95),
        reference: 16,
        notes: { median: at(0.5), worst: times.at(-1)!, blocks: blocksOf(letter.document).length },
      }
    } finally {
      await browser.close()
      await satchel.stop()
    }
  },
}

/** Types in the middle of the letter; what each key took, ms. */
async function typed(page: Page): Promise<number[]> {
  await page.locator(`[data-block="b${BLOCKS / 2}"] .paper-text`).click()
  await page.keyboard.press('End')
  await page.evaluate(() => {
    const keys: number[] = []
    Object.assign(window, { keys })
    addEventListener(
      'keydown',
      () => {
        const began = performance.now()
        const after = new MessageChannel()
        after.port1.onmessage = () => {
          void document.body.offsetHeight
          keys.push(performance.now() - began)
        }
        after.port2.postMessage(0)
      },
      true,
    )
  })
  const text = 'the wind is back and so are we '
  for (let i = 0; i < KEYS; i++) {
    await page.keyboard.press(text[i % text.length]! === ' ' ? 'Space' : text[i % text.length]!)
    await page.waitForTimeout(PAUSE)
  }
  return page.evaluate(() => (window as unknown as { keys: number[] }).keys)
}

/** Every second block a text, between them headings, buttons and lines. */
function longLetter(): Letter {
  const empty = emptyLetter()
  const rows = Array.from({ length: BLOCKS }, (_, i) => {
    const id = `b${i}`
    const words = richText(
      'A line of a long letter, with a good many words in it, as one writes them.',
    )
    const block: Block =
      i % 2 === 0
        ? ({ ...newBlock('text', id), text: words } as Block)
        : i % 4 === 1
          ? ({ ...newBlock('heading', id), text: richText(`Heading ${i}`) } as Block)
          : ({ ...newBlock('button', id), href: 'https://kites.example' } as Block)
    return rowOf(block)
  })
  return {
    ...empty,
    subject: 'A long letter',
    document: { ...empty.document, rows: [...rows, ...empty.document.rows] },
  }
}
