import { products, type Product } from './range'

/** Something that happens in the shop, so long after the visit began (ms), as the shop tells it. */
export interface ShopAct {
  after: number
  kind: 'events' | 'orders' | 'people'
  entry: Record<string, unknown>
}

const MINUTE = 60_000

/** How many look at a product, of those fill a basket, and of those order, who followed a letter's link. */
const byALetter = { looks: 0.5, baskets: 0.3, orders: 0.5 }

/**
 * What comes of somebody's coming to a page of the shop: the page, for some a look at a product, for some of those a basket,
 * and for some of those an order. `number` names the order, should there be one.
 */
export function visit(
  address: string,
  url: URL,
  number: string,
  chance: () => number,
  going = byALetter,
): ShopAct[] {
  const acts: ShopAct[] = [event(0, address, 'page view', { page: url.pathname })]
  if (chance() > going.looks) return acts
  const product = wanted(url, chance)
  acts.push(
    event(MINUTE, address, 'page view', {
      page: `/kites/${product.key}`,
      category: product.category,
    }),
  )
  if (chance() > going.baskets) return acts
  acts.push(
    event(4 * MINUTE, address, 'basket', { product: product.key, worth: product.price / 100 }),
  )
  if (chance() > going.orders) return acts
  const quantity = chance() < 0.85 ? 1 : 2
  acts.push({
    after: 9 * MINUTE,
    kind: 'orders',
    entry: {
      number,
      address,
      items: [
        {
          product: product.key,
          name: product.name,
          category: product.category,
          quantity,
          money: product.price * quantity,
        },
      ],
    },
  })
  return acts
}

/** A product that the page is about, or any. */
function wanted(url: URL, chance: () => number): Product {
  const about = products.filter(({ key }) => url.pathname.includes(key))
  const choice = about.length ? about : products
  return choice[Math.floor(chance() * choice.length)]!
}

function event(
  after: number,
  address: string,
  name: string,
  properties: Record<string, string | number>,
): ShopAct {
  return {
    after,
    kind: 'events',
    entry: { address, name, properties },
  }
}
