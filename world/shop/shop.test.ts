import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterEach, expect, test } from 'vitest'
import { chanceOf } from '../chance'
import { products } from './range'
import { tellOver } from './telling'
import { visit } from './visit'

const page = new URL('https://galewright.example/delta-7')
const visits = Array.from({ length: 3_000 }, (_, i) => {
  let n = 0
  return visit(`r${i}@inkpost.example`, page, `S-${i}`, () => chanceOf('visit', i, n++))
})

test('every visit begins with the page that the link led to', () => {
  for (const [first] of visits)
    expect(first).toMatchObject({
      after: 0,
      entry: { name: 'page view', properties: { page: '/delta-7' } },
    })
})

test('an order comes after a basket, a basket after a look, each of fewer people', () => {
  const whoDid = (kind: string) =>
    visits.filter((acts) => acts.some(({ entry }) => entry.name === kind || kind in entry)).length
  const [baskets, orders] = [whoDid('basket'), whoDid('items')]
  expect(baskets).toBeGreaterThan(orders)
  expect(orders).toBeGreaterThan(100)
  for (const acts of visits) {
    expect(acts.map(({ after }) => after)).toEqual(
      acts.map(({ after }) => after).toSorted((a, b) => a - b),
    )
    if (acts.some(({ kind }) => kind === 'orders')) expect(acts).toHaveLength(4)
  }
})

test('what a page is about is what is bought, at its price', () => {
  const price = new Map(products.map((product) => [product.key, product.price]))
  const items = visits.flatMap((acts) =>
    acts.flatMap(
      ({ entry }) => (entry.items ?? []) as { product: string; quantity: number; money: number }[],
    ),
  )
  for (const { product, quantity, money } of items) {
    expect(product).toMatch(/^delta-7/)
    expect(money).toBe(price.get(product)! * quantity)
  }
})

test('no two products share a key', () => {
  expect(new Set(products.map(({ key }) => key)).size).toBe(products.length)
})

let server: Server | undefined
let telling: ReturnType<typeof tellOver> | undefined
afterEach(() => {
  telling?.stop()
  server?.close()
})

/** A program that answers with these, one after the other, and writes down what it was told. */
async function listening(...answers: number[]) {
  const told: { path: string; key: string; token: string; entries: unknown[] }[] = []
  server = createServer((request, response) => {
    let body = ''
    request.on('data', (piece) => (body += piece))
    request.on('end', () => {
      const { entries } = JSON.parse(body) as { entries: unknown[] }
      told.push({
        path: request.url!,
        key: String(request.headers['idempotency-key']),
        token: String(request.headers.authorization),
        entries,
      })
      response.writeHead(answers.shift() ?? 200).end('{}')
    })
  })
  await new Promise<void>((done) => server!.listen(0, '127.0.0.1', done))
  const { port } = server.address() as AddressInfo
  telling = tellOver(`http://127.0.0.1:${port}/api/v1`, 'st_abc')
  return told
}

async function allTold() {
  while (telling!.waiting()) await new Promise((done) => setTimeout(done, 20))
}

test('what happens together is told together, events apart from orders', async () => {
  const told = await listening()
  for (let i = 0; i < 3; i++) telling!.tell({ kind: 'events', entry: { i } })
  telling!.tell({ kind: 'orders', entry: { number: 'S-1' } })
  await allTold()
  expect(told.map(({ path, entries }) => [path, entries.length])).toEqual([
    ['/api/v1/events', 3],
    ['/api/v1/orders', 1],
  ])
  expect(told[0]!.token).toBe('Bearer st_abc')
  expect(told[0]!.key).not.toBe(told[1]!.key)
})

test('what nobody took is told again under the same key; what was refused is not', async () => {
  const told = await listening(503, 200, 422)
  telling!.tell({ kind: 'events', entry: { i: 1 } })
  await allTold()
  expect(told).toHaveLength(2)
  expect(told[1]).toEqual(told[0])
  telling!.tell({ kind: 'events', entry: { i: 2 } })
  await allTold()
  expect(told).toHaveLength(3)
})
