import { chromium } from 'playwright-core'
import { all, q } from '../database'
import { install, type Installation } from '../tests/installation'
import type { Measure } from './harness'

/** What a hosted page may weigh with its picture, bytes; and within what it is painted first, ms. */
const MOST_BYTES = 60 * 1024
const MOST_MS = 1_000

/** Bytes that a browser fetches for the hosted page of the demo, with its picture and script. Nothing of it may move as it comes. */
export const hostedPage: Measure = {
  name: 'hosted-page',
  unit: 'bytes',
  promise: { atMost: 1 },
  runs: 1,
  run: () => loaded(({ bytes }) => ({ ours: bytes, reference: MOST_BYTES })),
}

/** When the hosted page is painted first, in a browser that has nothing of it yet. */
export const hostedPaint: Measure = {
  name: 'hosted-paint',
  unit: 'ms',
  promise: { atMost: 1 },
  runs: 3,
  run: () => loaded(({ painted }) => ({ ours: painted, reference: MOST_MS })),
}

async function loaded<T>(result: (of: { bytes: number; painted: number }) => T): Promise<T> {
  const satchel = await install({ demo: 200 })
  await satchel.start('web')
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
  })
  try {
    const page = await browser.newPage({ viewport: { width: 390, height: 800 } })
    let bytes = 0
    const devtools = await page.context().newCDPSession(page)
    await devtools.send('Network.enable')
    devtools.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength))
    await page.goto(`${satchel.url}/s/${keyOfHosted(satchel)}`, { waitUntil: 'networkidle' })
    const { painted, shifted } = (await page.evaluate(`new Promise((done) => {
      let shifted = 0
      new PerformanceObserver((list) => list.getEntries().forEach((one) => (shifted += one.value)))
        .observe({ type: 'layout-shift', buffered: true })
      const [paint] = performance.getEntriesByName('first-contentful-paint')
      setTimeout(() => done({ painted: paint.startTime, shifted }), 500)
    })`)) as { painted: number; shifted: number }
    if (shifted > 0) throw new Error(`The page moved by ${shifted} as it came.`)
    return result({ bytes, painted })
  } finally {
    await browser.close()
    await satchel.stop()
  }
}

/** The sign-up of the demo that has a page of its own with a picture on it. */
function keyOfHosted({ db }: Installation): string {
  const found = all(
    db,
    q.selectFrom('sign_ups').select('key').where('name', '=', 'Wind notes, its own page'),
  )
  return found[0]!.key
}
