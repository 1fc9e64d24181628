import { readFileSync } from 'node:fs'
import { chromium, type Browser, type Page } from 'playwright-core'
import { PAGE_WAITS } from './patience'
import { expect } from 'vitest'

/** A page in Debian's Chromium, with every error its console said. */
export interface Visitor {
  page: Page
  errors: string[]
  /** Fails where the page as it stands breaks a rule of WCAG 2.2 AA that axe knows. */
  expectAccessible(): Promise<void>
  close(): Promise<void>
}

/** An element that breaks a rule, and those that it breaks it with. */
interface Failing {
  html: string
  failureSummary: string
  any: { relatedNodes: { html: string }[] }[]
}

const axe = readFileSync('node_modules/axe-core/axe.min.js', 'utf8')

export async function visit(): Promise<Visitor> {
  const browser: Browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  })
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  page.setDefaultTimeout(PAGE_WAITS)
  askAsPage(page)
  const errors: string[] = []
  page.on('console', (message) => message.type() === 'error' && errors.push(message.text()))
  page.on('pageerror', (error) => errors.push(error.message))
  return {
    page,
    errors,
    async expectAccessible() {
      await page.evaluate(axe)
      const { violations } = (await page.evaluate(
        'axe.run(document, { runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"] })',
      )) as { violations: { id: string; nodes: Failing[] }[] }
      const found = violations.map(
        ({ id, nodes }) =>
          `${page.url()} ${id}: ${nodes
            .slice(0, 3)
            .map(
              ({ html, failureSummary, any }) =>
                `${html.slice(0, 160)} ${failureSummary.split('\n')[1] ?? ''} ${any
                  .flatMap(({ relatedNodes }) => relatedNodes.map((one) => one.html.slice(0, 160)))
                  .join(' & ')}`,
            )
            .join(' | ')}`,
      )
      expect(found).toEqual([])
    },
    close: () => browser.close(),
  }
}

/** What a test asks beside the page comes as if the page had asked it. */
function askAsPage({ request }: Page) {
  for (const method of ['post', 'put', 'delete'] as const) {
    const plain = request[method].bind(request)
    request[method] = (url, options) =>
      plain(url, { ...options, headers: { origin: new URL(url).origin, ...options?.headers } })
  }
}
