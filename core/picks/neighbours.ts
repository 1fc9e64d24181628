/** For each product those that the same people bought, with how close they are, the closest first. */
export type Neighbours = ReadonlyMap<number, readonly { product: number; closeness: number }[]>

/** Fewer who bought both are chance. */
const FEWEST = 2
/** So many are kept of each. */
const KEPT = 20
/** Who bought more than this is a trader, or a test. */
const MOST = 200

/**
 * Products by who bought them: closeness is the cosine of the two sets of buyers, the number who bought both over
 * the geometric mean of those who bought one. `baskets` holds what each person ever bought, each product once.
 */
export function neighboursOf(baskets: Iterable<readonly number[]>): Neighbours {
  const buyers = new Map<number, number>()
  const both = new Map<number, Map<number, number>>()
  for (const basket of baskets) {
    const bought = [...new Set(basket)].slice(0, MOST)
    for (const one of bought) {
      buyers.set(one, (buyers.get(one) ?? 0) + 1)
      const counts = both.get(one) ?? new Map<number, number>()
      both.set(one, counts)
      for (const other of bought) if (other !== one) counts.set(other, (counts.get(other) ?? 0) + 1)
    }
  }
  const neighbours = new Map<number, { product: number; closeness: number }[]>()
  for (const [one, counts] of both) {
    const found = [...counts]
      .filter(([, n]) => n >= FEWEST)
      .map(([product, n]) => ({
        product,
        closeness: n / Math.sqrt(buyers.get(one)! * buyers.get(product)!),
      }))
      .sort((a, b) => b.closeness - a.closeness || a.product - b.product)
      .slice(0, KEPT)
    if (found.length) neighbours.set(one, found)
  }
  return neighbours
}
