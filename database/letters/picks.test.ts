import { beforeEach, expect, test } from 'vitest'
import { newBlock, type Block, type Picks } from '../../core/letters'
import { emptyLetter, rowOf } from '../../core/letters/document'
import { takeEvent, takeOrder, takeProduct } from '../imports'
import { madeUpAccount, somebody } from '../made-up'
import { pickerFor, picksOffered, productCategories } from './picks'
import type { Database } from '../query'

let db: Database
let tove: number
let wren: number
const now = 1_790_000_000_000
beforeEach(() => {
  ;({ db } = madeUpAccount())
  tove = somebody(db, 'tove')
  wren = somebody(db, 'wren')
  for (const [i, key] of ['gull', 'delta', 'line', 'spar', 'sled'].entries())
    takeProduct(db, product(key, { price: (i + 1) * 1_000 }), now)
})
const product = (key: string, more: object = {}) => ({
  ...{ key, name: key.toUpperCase(), category: key.length > 4 ? 'large' : 'small', price: 900 },
  ...{ url: `https://kites.example/${key}`, picture: '/p/kite', stock: 4 },
  ...more,
})
function document(settings: Partial<Picks> = {}) {
  const block = { ...newBlock('picks', 'picked'), many: 2, ...settings } as Block
  const empty = emptyLetter().document
  return { ...empty, rows: [rowOf(block), ...empty.rows] }
}
const order = (number: string, name: string, ...products: string[]) =>
  takeOrder(
    db,
    {
      ...{ number, address: `${name}@inkpost.example`, at: now - 1_000 },
      items: products.map((one) => ({
        ...{ product: one, name: one, category: '', quantity: 1, money: 900 },
      })),
    },
    now,
  )
const looked = (name: string, properties: Record<string, string>, at: number) =>
  takeEvent(db, { address: `${name}@inkpost.example`, name: 'page view', at, properties })
function picked(person: number, settings: Partial<Picks> = {}) {
  const picks = pickerFor(db, document(settings), 'https://mail.example', now)!
    .pickFor([{ person_id: person, round: 0 }])
    .get(`${person} 0`)!
  return [0, 1, 2, 3].flatMap((i) => picks[`picked ${i}`]?.name ?? [])
}

test('a letter without picked products has no picker', () => {
  expect(pickerFor(db, emptyLetter().document, 'https://mail.example', now)).toBeNull()
})

test('what somebody looked at last, by its page or its key', () => {
  looked('tove', { page: '/kites/line?from=mail' }, 5)
  looked('tove', { product: 'spar' }, 9)
  looked('wren', { page: '/kites/gull' }, 7)
  expect(picked(tove, { by: 'viewed' })).toEqual(['SPAR', 'LINE'])
  expect(picked(wren, { by: 'viewed', many: 1 })).toEqual(['GULL'])
})

test('what goes with what they bought, never what they have', () => {
  for (const name of ['ada', 'bea', 'cal']) somebody(db, name)
  order('1', 'ada', 'delta', 'spar')
  order('2', 'bea', 'delta', 'spar')
  order('3', 'cal', 'gull')
  order('4', 'tove', 'delta')
  expect(picked(tove, { by: 'together', many: 1 })).toEqual(['SPAR'])
  expect(picked(tove, { by: 'together', many: 4 })).not.toContain('DELTA')
})

test('products without an address or a picture, too dear, of another kind or sold out are not picked', () => {
  takeProduct(db, product('gull', { url: null }), now)
  takeProduct(db, product('line', { stock: 0 }), now)
  expect(picked(tove, { by: 'best', many: 4 })).toEqual(['DELTA', 'SPAR', 'SLED'])
  expect(picked(tove, { by: 'best', many: 4, upTo: 2_000 })).toEqual(['DELTA'])
  expect(picked(tove, { by: 'best', category: 'large' })).toEqual(['DELTA'])
  expect([...picksOffered(db, document({ category: 'large' }), now)]).toEqual([['picked', 1]])
  expect(productCategories(db)).toEqual(['large', 'small'])
})

test('each product has a link of its own in the mailing', () => {
  const { links, pickFor } = pickerFor(db, document({ by: 'new' }), 'https://mail.example', now)!
  expect(links).toHaveLength(5)
  const mine = pickFor([{ person_id: tove, round: 0 }]).get(`${tove} 0`)!['picked 0']!
  expect(links.find(({ no }) => no === mine.link)).toMatchObject({ url: mine.url })
  expect(mine).toMatchObject({
    price: '£10.00',
    picture: 'https://mail.example/p/kite-400',
  })
})

test('a product told again is changed, or left', () => {
  expect(takeProduct(db, product('gull', { price: 1_000 }), now)).toBe('unchanged')
  expect(takeProduct(db, product('gull', { price: 5 }), now)).toBe('changed')
})
