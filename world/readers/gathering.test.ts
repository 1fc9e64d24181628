import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { mailboxExists } from '../post-office/providers'
import { gatherReaders } from './readers'

interface Request {
  url: string
  method: string
  agent: string
  body: string
}

const HOUR = 3_600_000
const UNSUBSCRIBE = 'https://mail.galewright.example/u/tok'
let now: number
let requests: Request[]
let readers: ReturnType<typeof gatherReaders> | undefined

beforeEach(() => {
  vi.useFakeTimers()
  now = Date.UTC(2026, 10, 23, 9)
  requests = []
  vi.stubGlobal('fetch', async (url: string | URL, options: RequestInit = {}) => {
    const agent = (options.headers as Record<string, string> | undefined)?.['User-Agent'] ?? ''
    requests.push({
      url: String(url),
      method: options.method ?? 'GET',
      agent,
      body: String(options.body ?? ''),
    })
    const text = '<form method="post"><button>Leave</button></form>'
    const location = String(url).includes('/c/') ? 'https://galewright.example/delta-7' : null
    return {
      ok: true,
      headers: new Headers(location ? { location } : {}),
      arrayBuffer: async () => new ArrayBuffer(0),
      text: async () => text,
    }
  })
})
afterEach(() => {
  readers?.stop()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

let told: { kind: string; entry: Record<string, unknown> }[]

function gather(customers: string[] | null = null) {
  const clock = { now: () => now, isKnown: () => true, followedTo: () => {}, stop: () => {} }
  told = []
  readers = gatherReaders({
    clock,
    reportsUrl: 'http://satchel.test/in/reports/k',
    seed: 'test',
    tell: (one) => void told.push(one),
    customers: customers && {
      all: () => customers,
      add: (address) => void customers.push(address),
    },
  })
  return readers
}

function letter(no: number) {
  return [
    'Subject: Wind',
    `Message-ID: <${no}@galewright.example>`,
    `List-Unsubscribe: <${UNSUBSCRIBE}>`,
    'Content-Type: text/html; charset=utf-8',
    '',
    `<a href="https://mail.galewright.example/c/${no}/0">Forecast</a>`,
    `<a href="${UNSUBSCRIBE}">Leave</a>`,
    `<img src="https://mail.galewright.example/o/${no}.gif">`,
  ].join('\r\n')
}

const mail = (address: string, no = 0) => ({
  address,
  returnPath: 'bounce-1@galewright.example',
  source: letter(no),
  folder: 'inbox' as 'inbox' | 'junk',
})

/** Lets the world's time pass, and its readers do what is due. */
async function pass(ms: number) {
  now += ms
  for (let i = 0; i < 200; i++) await vi.advanceTimersByTimeAsync(25)
}

/** Existing mailboxes at a provider. */
const mailboxesAt = (domain: string, many: number) =>
  Array.from({ length: many * 2 }, (_, i) => `r${i}@${domain}`)
    .filter(mailboxExists)
    .slice(0, many)

test('a provider that fetches pictures does so on arrival, one that scans looks at every link', async () => {
  const world = gather()
  world.received(mail(mailboxesAt('veilpost.example', 1)[0]!))
  world.received(mail(mailboxesAt('workdesk.example', 1)[0]!, 1))
  await pass(2_000)
  expect(requests.map(({ method, url }) => `${method} ${url}`).sort()).toEqual([
    'GET https://mail.galewright.example/o/0.gif',
    'HEAD https://mail.galewright.example/c/1/0',
    `HEAD ${UNSUBSCRIBE}`,
  ])
})

test('a mailbox that turns out not to exist is reported two minutes later', async () => {
  const nobody = Array.from({ length: 2_000 }, (_, i) => `r${i}@oldmill.example`).find(
    (address) => !mailboxExists(address),
  )!
  gather().received(mail(nobody))
  await pass(60_000)
  expect(requests).toEqual([])
  await pass(90_000)
  expect(requests).toMatchObject([{ url: 'http://satchel.test/in/reports/k', method: 'POST' }])
  expect(requests[0]!.body).toContain(`Final-Recipient: rfc822; ${nobody}`)
})

test('over three days some read, fewer click, and nobody clicks without having read', async () => {
  const world = gather()
  const addresses = mailboxesAt('harbourmail.example', 300)
  addresses.forEach((address, i) => world.received(mail(address, i)))
  for (let hour = 0; hour < 24 * 14; hour += 6) await pass(6 * HOUR)
  const opened = new Set(requests.filter(({ url }) => url.includes('/o/')).map(({ url }) => url))
  const clicked = new Set(requests.filter(({ url }) => url.includes('/c/')).map(({ url }) => url))
  expect(opened.size).toBeGreaterThan(60)
  expect(opened.size).toBeLessThan(240)
  expect(clicked.size).toBeGreaterThan(5)
  expect(clicked.size).toBeLessThan(opened.size)
  expect(world.waiting()).toBe(0)
})

test('who follows a link into the shop is seen there, and only they; some buy', async () => {
  const world = gather()
  const addresses = mailboxesAt('elsewhere.example', 1_500)
  addresses.forEach((address, i) => world.received(mail(address, i)))
  for (let day = 0; day < 20; day++) {
    now += 24 * HOUR
    for (let i = 0; i < 400 && world.waiting(); i++) await vi.advanceTimersByTimeAsync(25)
  }
  const clicked = requests.filter(({ url, method }) => url.includes('/c/') && method === 'GET')
  const seen = told.filter(
    ({ entry }) => (entry.properties as { page?: string } | undefined)?.page === '/delta-7',
  )
  expect(seen.length).toBeGreaterThan(20)
  expect(seen.length).toBeLessThanOrEqual(clicked.length)
  const orders = told.filter(({ kind }) => kind === 'orders')
  expect(orders.length).toBeGreaterThan(0)
  expect(orders.length).toBeLessThan(seen.length / 4)
  const visitors = new Set(seen.map(({ entry }) => entry.address))
  for (const { entry } of orders) expect(visitors).toContain(entry.address)
  for (const { entry } of told) expect(Date.parse(entry.at as string)).toBeLessThanOrEqual(now)
})

test('who leaves does so by the page or by the header, never by following the link as if it were one to read', async () => {
  const world = gather()
  const addresses = mailboxesAt('elsewhere.example', 4_000)
  addresses.forEach((address, i) => world.received(mail(address, i)))
  for (let day = 0; day < 20; day++) {
    now += 24 * HOUR
    for (let i = 0; i < 400 && world.waiting(); i++) await vi.advanceTimersByTimeAsync(25)
  }
  const leaving = requests.filter(({ url }) => url.startsWith(UNSUBSCRIBE))
  const posts = leaving.filter(({ method }) => method === 'POST')
  expect(posts.length).toBeGreaterThan(0)
  for (const { body } of posts) expect(['leave=yes', 'List-Unsubscribe=One-Click']).toContain(body)
  const byPage = posts.filter(({ body }) => body === 'leave=yes').length
  expect(leaving.filter(({ method }) => method === 'GET')).toHaveLength(byPage)
})

test('on each of sixteen days people come in, fill baskets, buy and join, though no letter goes out', async () => {
  const customers = Array.from({ length: 3_000 }, (_, i) => `c${i}@inkpost.example`)
  const known = customers.length
  const world = gather(customers)
  await vi.advanceTimersByTimeAsync(50)
  const days = new Map<string, Record<string, number>>()
  for (let day = 0; day < 16; day++) {
    // The clock is jumped on by a whole day at once, and nothing of it is left out.
    now += 24 * HOUR
    for (let i = 0; i < 4_000 && world.waiting() > 40; i++) await vi.advanceTimersByTimeAsync(10)
    await vi.advanceTimersByTimeAsync(200)
  }
  for (const { kind, entry } of told) {
    if (kind === 'people') continue
    const day = String(entry.at).slice(0, 10)
    const what = kind === 'orders' ? 'order' : String(entry.name)
    const counts = days.get(day) ?? {}
    days.set(day, { ...counts, [what]: (counts[what] ?? 0) + 1 })
  }
  const whole = [...days].slice(1, 16)
  expect(whole).toHaveLength(15)
  for (const [, counts] of whole) {
    expect(counts['page view']).toBeGreaterThan(50)
    expect(counts.search).toBeGreaterThan(10)
    expect(counts.basket).toBeGreaterThan(0)
  }
  expect(whole.filter(([, counts]) => counts.order).length).toBeGreaterThan(9)
  const joined = told.filter(({ kind }) => kind === 'people')
  expect(joined.length).toBeGreaterThan(15)
  // Who comes later in this hour is in the register already.
  expect(customers.length - known - joined.length).toBeGreaterThanOrEqual(0)
  expect(customers.length - known - joined.length).toBeLessThan(4)
  expect(requests).toEqual([])
})
