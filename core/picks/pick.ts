import type { Neighbours } from './neighbours'

export interface Product {
  id: number
  category: string
  /** Minor units. */
  price: number
  /** Null where nobody counts. */
  stock: number | null
  createdAt: number
  /** How many were sold lately. */
  sold: number
}

/** By what products are picked. */
export const pickWays = [
  { key: 'viewed', name: 'what they looked at last' },
  { key: 'together', name: 'what goes with what they bought' },
  { key: 'best', name: 'what sells best' },
  { key: 'new', name: 'what is new' },
  { key: 'began', name: 'what the sequence began with' },
] as const
export type PickWay = (typeof pickWays)[number]['key']

export interface PickSettings {
  by: PickWay
  /** Only of this category; empty: of all. */
  category: string
  /** Only up to this price, minor units. */
  upTo: number | null
  inStock: boolean
  many: number
}

/** What is known of a reader: product numbers, the latest first. */
export interface ReaderFacts {
  viewed: readonly number[]
  bought: readonly number[]
  /** What the event carried that let them into the sequence whose mail it is. */
  began?: readonly number[]
}

/**
 * The products for one reader, the best first: by the chosen way, then filled up with what sells best of the
 * categories they care for, then of all. Never what they have, but for what a sequence began with, which they may well buy
 * again; fewer than wanted only where there are no more.
 */
export function pickProducts(
  reader: ReaderFacts,
  catalog: readonly Product[],
  neighbours: Neighbours,
  settings: PickSettings,
): number[] {
  const has = new Set(reader.bought)
  const offered = catalog.filter((product) => isOffered(product, settings) && !has.has(product.id))
  const known = new Map(offered.map((product) => [product.id, product]))
  const best = offered.toSorted(bySales)
  const picked: number[] = []
  const take = (ids: Iterable<number>) => {
    for (const id of ids) {
      if (picked.length >= settings.many) return
      if (known.has(id) && !picked.includes(id)) picked.push(id)
    }
  }
  switch (settings.by) {
    case 'viewed':
      take(reader.viewed)
      break
    case 'began': {
      const began = reader.began ?? []
      const there = new Set(catalog.map(({ id }) => id))
      picked.push(...began.filter((id) => there.has(id)).slice(0, settings.many))
      take(goingWith(began, neighbours))
      take(reader.viewed)
      break
    }
    case 'together':
      take(goingWith(reader.bought, neighbours))
      break
    case 'new':
      take(offered.toSorted((a, b) => b.createdAt - a.createdAt || a.id - b.id).map(({ id }) => id))
      break
    case 'best':
  }
  const liked = likedCategories(reader, catalog)
  take(best.filter(({ category }) => liked.has(category)).map(({ id }) => id))
  take(best.map(({ id }) => id))
  return picked
}

/** Whether a product may be picked for anybody. */
export function isOffered(product: Product, { category, upTo, inStock }: PickSettings): boolean {
  return (
    (category === '' || product.category === category) &&
    (upTo === null || product.price <= upTo) &&
    (!inStock || product.stock === null || product.stock > 0)
  )
}

/** What goes with what was bought: closeness summed over all of it, what was bought later counting more. */
function goingWith(bought: readonly number[], neighbours: Neighbours): number[] {
  const scores = new Map<number, number>()
  bought.forEach((one, i) => {
    for (const { product, closeness } of neighbours.get(one) ?? [])
      scores.set(product, (scores.get(product) ?? 0) + closeness / (1 + i / 4))
  })
  return [...scores].sort(([a, x], [b, y]) => y - x || a - b).map(([product]) => product)
}

function likedCategories(
  { viewed, bought }: ReaderFacts,
  catalog: readonly Product[],
): Set<string> {
  const about = new Set([...viewed, ...bought])
  return new Set(catalog.flatMap(({ id, category }) => (about.has(id) ? [category] : [])))
}

function bySales(a: Product, b: Product): number {
  return b.sold - a.sold || a.id - b.id
}
