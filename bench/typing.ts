import { build } from 'esbuild'
import { chromium, type Page } from 'playwright-core'
import { blocksOf, emptyLetter, newBlock, type Block, type Letter } from '../core/letters'
import { rowOf } from '../core/letters/document'
import { plainInline, richText } from '../core/letters/rich-text'
import { createMailing } from '../database/mailings'
import { listsWithCounts } from '../database/people'
import { install } from '../tests/installation'
import type { Measure } from './harness'

const BLOCKS = 120
const KEYS = 300
/** Between two keys, ms: somebody who types fast. */
const PAUSE = 70

/**
 * What the page does for a key in a letter of 120 blocks, at the 95th percentile, against a page with nothing but the same
 * editor and the same text in it: from the key to the end of all scripts that follow from it, with styles and layout reckoned. `busy` is how long the
 * page's thread works in all, with the browser's painting (here without a graphics card) and what comes frames later.
 */
export const typing: Measure = {
  name: 'typing',
  unit: 'ms',
  promise: { atMost: 2 },
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
      const { handled, busy } = await typed(page, `[data-block="b${BLOCKS / 2}"] .paper-text`)
      await page.close()
      const bare = await browser.newPage({ viewport: { width: 1280, height: 800 } })
      await bareEditor(bare, letter)
      const alone = await typed(bare, `.tiptap > :nth-child(${BLOCKS / 2 + 1})`)
      return {
        ours: at(handled, 0.95),
        reference: at(alone.handled, 0.95),
        notes: {
          median: at(handled, 0.5),
          'bare, median': at(alone.handled, 0.5),
          worst: at(handled, 1),
          'busy, median': at(busy, 0.5),
          'busy, 95%': at(busy, 0.95),
          blocks: blocksOf(letter.document).length,
        },
      }
    } finally {
      await browser.close()
      await satchel.stop()
    }
  },
}

const at = (times: number[], share: number) =>
  times.toSorted((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))]!

/** Types in the middle of the letter; for each key, ms. */
async function typed(page: Page, where: string): Promise<{ handled: number[]; busy: number[] }> {
  await page.locator(where).click()
  await page.keyboard.press('End')
  await page.evaluate(() => {
    const keys: number[] = []
    Object.assign(window, { keys })
    let began = 0
    addEventListener('keydown', () => (began = performance.now()), true)
    addEventListener(
      'input',
      async () => {
        // The editor hears of the change in a microtask, the page is redrawn in another: this comes after all of them.
        for (let i = 0; i < 50; i++) await null
        void document.body.offsetHeight
        keys.push(performance.now() - began)
      },
      true,
    )
  })
  const devtools = await page.context().newCDPSession(page)
  await devtools.send('Performance.enable')
  const taskMs = async () => {
    const { metrics } = await devtools.send('Performance.getMetrics')
    return 1000 * metrics.find(({ name }) => name === 'TaskDuration')!.value
  }
  const busy: number[] = []
  const text = 'the wind is back and so are we '
  for (let i = 0; i < KEYS; i++) {
    const before = await taskMs()
    await page.keyboard.press(text[i % text.length]! === ' ' ? 'Space' : text[i % text.length]!)
    await page.waitForTimeout(PAUSE)
    busy.push((await taskMs()) - before)
  }
  const handled = await page.evaluate(() => (window as unknown as { keys: number[] }).keys)
  return { handled, busy }
}

/** A page with a plain editor, as its library has it, and the text of a letter. */
async function bareEditor(page: Page, letter: Letter) {
  const { outputFiles } = await build({
    stdin: {
      contents: `
        import { Editor } from '@tiptap/core'
        import StarterKit from '@tiptap/starter-kit'
        window.edit = (content) => new Editor({ element: document.body, extensions: [StarterKit], content })`,
      resolveDir: process.cwd(),
    },
    bundle: true,
    write: false,
    minify: true,
    format: 'iife',
  })
  await page.setContent('<!doctype html><body style="width:600px;margin:0 auto"></body>')
  await page.addScriptTag({ content: outputFiles[0]!.text })
  const paragraphs = blocksOf(letter.document).map((block) => ({
    type: 'paragraph',
    content: [
      { type: 'text', text: 'text' in block ? plainInline(block.text) || ' ' : block.kind },
    ],
  }))
  await page.evaluate(
    (content) =>
      (window as unknown as { edit: (content: unknown) => void }).edit({ type: 'doc', content }),
    paragraphs,
  )
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
