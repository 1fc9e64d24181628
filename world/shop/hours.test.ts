import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { openCustomers } from './customers'
import { shopHour } from './hours'
import { products } from './range'

const customers = Array.from({ length: 12_400 }, (_, i) => `c${i}@inkpost.example`)
const START = Date.UTC(2026, 10, 24) / 3_600_000
const days = Array.from({ length: 16 }, (_, day) =>
  Array.from({ length: 24 }, (_, hour) => shopHour('test', START + 24 * day + hour, customers)),
)
const actsOf = (day: (typeof days)[number]) => day.flatMap(({ acts }) => acts)
const named = (day: (typeof days)[number], name: string) =>
  actsOf(day).filter(({ entry }) => entry.name === name).length

test('every one of sixteen days has visits, searches, baskets, orders, people who join and who leave', () => {
  for (const day of days) {
    expect(named(day, 'page view')).toBeGreaterThan(300)
    expect(named(day, 'search')).toBeGreaterThan(80)
    expect(named(day, 'basket')).toBeGreaterThan(20)
    const orders = actsOf(day).filter(({ kind }) => kind === 'orders').length
    expect(orders).toBeGreaterThan(2)
    expect(orders).toBeLessThan(40)
    expect(day.flatMap(({ joining }) => joining).length).toBeGreaterThan(2)
  }
  const left = days.flat().flatMap(({ leaving }) => leaving).length
  expect(left).toBeGreaterThan(8)
  expect(left).toBeLessThan(60)
})

test('it is busiest in the evening and hardly anybody comes at night', () => {
  const at = (...hours: number[]) =>
    days.flatMap((day) => hours.map((hour) => day[hour]!.acts.length)).reduce((a, b) => a + b, 0)
  expect(at(19, 20)).toBeGreaterThan(5 * at(2, 3))
  expect(at(12)).toBeGreaterThan(at(6))
})

test('the same hour is always the same, and what happens in it lies in it', () => {
  expect(shopHour('test', START + 12, customers)).toEqual(days[0]![12])
  expect(shopHour('other', START + 12, customers)).not.toEqual(days[0]![12])
  for (const { acts } of days[0]!)
    expect(acts.map(({ at }) => at)).toEqual(acts.map(({ at }) => at).toSorted((a, b) => a - b))
  for (const { at } of days[0]![12]!.acts) {
    expect(at).toBeGreaterThanOrEqual((START + 12) * 3_600_000)
    expect(at).toBeLessThan((START + 13.2) * 3_600_000)
  }
})

test('orders are of customers, have numbers of their own and cost what the shop asks', () => {
  const price = new Map(products.map(({ key, price: asked }) => [key, asked]))
  const orders = days.flatMap(actsOf).filter(({ kind }) => kind === 'orders')
  const numbers = orders.map(({ entry }) => entry.number)
  expect(new Set(numbers).size).toBe(numbers.length)
  for (const { entry } of orders) {
    expect(customers).toContain(entry.address)
    const [item] = entry.items as { product: string; quantity: number; money: number }[]
    expect(item!.money).toBe(price.get(item!.product)! * item!.quantity)
  }
})

test('whoever joins says yes to a list, and has an address that nobody has', () => {
  const joining = days.flatMap(actsOf).filter(({ kind }) => kind === 'people')
  const addresses = joining.map(({ entry }) => entry.address)
  expect(new Set(addresses).size).toBe(addresses.length)
  for (const { entry } of joining)
    for (const { agreed } of entry.lists as { agreed: string }[]) expect(agreed).toContain('Yes')
})

test('a shop without customers is quiet; its register grows by who joins', () => {
  expect(shopHour('test', START, [])).toEqual({ acts: [], joining: [], leaving: [] })
  const folder = mkdtempSync(join(tmpdir(), 'customers-'))
  const file = join(folder, 'customers.txt')
  expect(openCustomers(file)).toBeNull()
  writeFileSync(file, 'a@x.example\n')
  openCustomers(file)!.add('b@x.example')
  expect(openCustomers(file)!.all()).toEqual(['a@x.example', 'b@x.example'])
  expect(readFileSync(file, 'utf8')).toBe('a@x.example\nb@x.example\n')
  rmSync(folder, { recursive: true })
})
