import fc from 'fast-check'
import { expect, test } from 'vitest'
import { neighboursOf, pickProducts, pickWays, type PickSettings, type Product } from '.'

const product = (id: number, more: Partial<Product> = {}): Product => ({
  id,
  category: id % 2 ? 'delta' : 'line',
  price: id * 1_000,
  stock: null,
  createdAt: id,
  sold: 100 - id,
  ...more,
})
const catalog = Array.from({ length: 8 }, (_, i) => product(i + 1))
const settings = (more: Partial<PickSettings> = {}): PickSettings => ({
  by: 'best',
  category: '',
  upTo: null,
  inStock: true,
  many: 3,
  ...more,
})
const nobody = { viewed: [], bought: [] }
const none = new Map()

test('closeness is the cosine of who bought both', () => {
  const neighbours = neighboursOf([[1, 2], [1, 2], [1, 2, 3], [1], [3]])
  expect(neighbours.get(2)).toEqual([{ product: 1, closeness: 3 / Math.sqrt(3 * 4) }])
  // 3 was bought with the others by one person only: that is chance.
  expect(neighbours.get(3)).toBeUndefined()
})

test('closeness is the same both ways, between 0 and 1, and no product is its own neighbour', () => {
  const baskets = fc.array(fc.array(fc.integer({ min: 1, max: 9 }), { maxLength: 6 }), {
    maxLength: 40,
  })
  fc.assert(
    fc.property(baskets, (all) => {
      const neighbours = neighboursOf(all)
      for (const [one, others] of neighbours)
        for (const { product: other, closeness } of others) {
          expect(other).not.toBe(one)
          expect(closeness).toBeGreaterThan(0)
          expect(closeness).toBeLessThanOrEqual(1 + 1e-12)
          const back = neighbours.get(other)!.find((way) => way.product === one)!
          expect(back.closeness).toBeCloseTo(closeness)
        }
    }),
  )
})

test('by what they looked at, by what goes with what they have, by sales, by age', () => {
  const viewed = { viewed: [6, 4], bought: [] }
  expect(pickProducts(viewed, catalog, none, settings({ by: 'viewed', many: 2 }))).toEqual([6, 4])
  const neighbours = new Map([[1, [{ product: 7, closeness: 0.9 }]]])
  const buyer = { viewed: [], bought: [1] }
  expect(pickProducts(buyer, catalog, neighbours, settings({ by: 'together', many: 1 }))).toEqual([
    7,
  ])
  expect(pickProducts(nobody, catalog, none, settings())).toEqual([1, 2, 3])
  expect(pickProducts(nobody, catalog, none, settings({ by: 'new' }))).toEqual([8, 7, 6])
})

test('where too little is known, what sells best of what they care for fills up, then the rest', () => {
  const reader = { viewed: [4], bought: [2] }
  expect(pickProducts(reader, catalog, none, settings({ by: 'viewed', many: 4 }))).toEqual([
    4, 6, 8, 1,
  ])
})

test('only what fits: category, price, stock', () => {
  expect(pickProducts(nobody, catalog, none, settings({ category: 'line' }))).toEqual([2, 4, 6])
  expect(pickProducts(nobody, catalog, none, settings({ upTo: 2_000 }))).toEqual([1, 2])
  const sold = catalog.map((one) => ({ ...one, stock: one.id < 5 ? 0 : 3 }))
  expect(pickProducts(nobody, sold, none, settings())).toEqual([5, 6, 7])
  expect(pickProducts(nobody, sold, none, settings({ inStock: false }))).toEqual([1, 2, 3])
})

test('whoever it is: never what they have, never twice, as many as there are, the same each time', () => {
  const ids = fc.array(fc.integer({ min: 1, max: 10 }), { maxLength: 8 })
  fc.assert(
    fc.property(
      fc.record({ viewed: ids, bought: ids }),
      fc.array(ids, { maxLength: 20 }),
      fc.constantFrom(...pickWays),
      fc.integer({ min: 1, max: 4 }),
      (reader, baskets, { key }, many) => {
        const neighbours = neighboursOf(baskets)
        const picked = pickProducts(reader, catalog, neighbours, settings({ by: key, many }))
        expect(new Set(picked).size).toBe(picked.length)
        for (const id of picked) expect(reader.bought).not.toContain(id)
        const left = catalog.filter(({ id }) => !reader.bought.includes(id)).length
        expect(picked).toHaveLength(Math.min(many, left))
        expect(pickProducts(reader, catalog, neighbours, settings({ by: key, many }))).toEqual(
          picked,
        )
      },
    ),
  )
})

test('what a sequence began with stands first, also where they bought it before, then what goes with it', () => {
  const neighbours = neighboursOf([
    [4, 7],
    [4, 7],
    [4, 7],
  ])
  const reader = { viewed: [2], bought: [4], began: [4, 99] }
  expect(pickProducts(reader, catalog, neighbours, settings({ by: 'began' }))).toEqual([4, 7, 2])
  // Let in by hand there is nothing it began with: as what they looked at last.
  const { began: _, ...byHand } = reader
  expect(pickProducts(byHand, catalog, none, settings({ by: 'began', many: 1 }))).toEqual([2])
})
