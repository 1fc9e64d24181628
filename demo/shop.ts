import { DAY, HOUR } from '../core/time'
import { prepared, q, run, type Database } from '../database'
import { products as sold } from '../world/shop/range'
import type { Chance } from './chance'
import { HISTORY, type DemoPerson } from './people'

/**
 * The shop's products, orders, baskets and page views: about one order for two people on file, most by
 * those who read gladly, more before summer and Christmas.
 */
export function makeShop(
  db: Database,
  chance: Chance,
  people: DemoPerson[],
  pictures: Record<string, string>,
  now: number,
) {
  const looks = Object.values(pictures)
  const products = sold.map((product, i) => {
    const row = q.insertInto('products').values({
      ...product,
      url: `https://galewright.example/kites/${product.key}`,
      picture: looks[i % looks.length]!,
      stock: i % 9 === 4 ? 0 : 3 + ((i * 7) % 40),
      created_at: now - HISTORY + i * DAY,
    })
    return { ...product, id: run(db, row).id }
  })
  const categories = [...new Set(products.map(({ category }) => category))]
  const write = shopStatements(db)
  let number = 10_000
  for (const person of people) {
    const buyer = chance.is(0.16 + 0.33 * person.keen)
    const from = Math.max(person.joinedAt, now - HISTORY)
    const likes = chance.pick(categories)
    const pick = () =>
      chance.pick(
        chance.is(0.6) ? products.filter((product) => product.category === likes) : products,
      )
    const moment = () => {
      for (;;) {
        const at = from + chance.next() * (now - from)
        const month = new Date(at).getUTCMonth()
        const season = [4, 5, 6, 10, 11].includes(month) ? 1 : 0.55
        if (chance.is(season)) return Math.floor(at)
      }
    }
    const visits = buyer ? chance.between(1, 6) : chance.is(0.3) ? chance.between(1, 2) : 0
    for (let i = 0; i < visits; i++) {
      const product = pick()
      write.event.run({
        person: person.id,
        name: 'page view',
        at: moment(),
        props: JSON.stringify({ page: `/kites/${product.key}`, category: product.category }),
      })
    }
    const orders = buyer
      ? 1 + Math.floor(-Math.log(1 - chance.next()) * (0.4 + 1.2 * person.keen))
      : 0
    for (let i = 0; i < orders; i++) {
      const items = Array.from(
        {
          length: chance.weighted([
            [1, 6],
            [2, 3],
            [3, 1],
          ]),
        },
        pick,
      )
      const quantities = items.map(() => (chance.is(0.85) ? 1 : 2))
      const money = items.reduce((sum, { price }, n) => sum + price * quantities[n]!, 0)
      // Half of those who follow a letter's link into the shop and buy at all buy then.
      const click = person.clicks.length && chance.is(0.5) ? chance.pick(person.clicks) : null
      const at =
        click === null ? moment() : Math.min(now, click + Math.floor(chance.next() * 200) * 60_000)
      const order = write.order.one({ number: `G-${++number}`, person: person.id, at, money })!.id
      items.forEach(({ id, price }, position) =>
        write.item.run({
          order,
          position,
          product: id,
          quantity: quantities[position]!,
          money: price * quantities[position]!,
        }),
      )
    }
    if (chance.is(buyer ? 0.2 : 0.03)) {
      const product = pick()
      const at = chance.is(0.1) ? now - Math.floor(chance.next() * 2 * DAY) : moment()
      write.event.run({
        person: person.id,
        name: 'basket',
        at: Math.min(at, now - HOUR),
        props: JSON.stringify({ product: product.key, worth: product.price / 100 }),
      })
      // Who has left one basket behind often leaves another.
      const before = at - chance.between(9, 60) * DAY
      if (before > from && chance.is(0.4))
        write.event.run({
          person: person.id,
          name: 'basket',
          at: before,
          props: JSON.stringify({ product: product.key, worth: product.price / 100 }),
        })
    }
  }
}

function shopStatements(db: Database) {
  return {
    order: prepared<{ number: string; person: number; at: number; money: number }, { id: number }>(
      db,
      (value) =>
        q
          .insertInto('orders')
          .values({
            number: value('number'),
            person_id: value('person'),
            at: value('at'),
            money: value('money'),
          })
          .returning('id'),
    ),
    item: prepared<{
      order: number
      position: number
      product: number
      quantity: number
      money: number
    }>(db, (value) =>
      q.insertInto('order_items').values({
        order_id: value('order'),
        position: value('position'),
        product_id: value('product'),
        quantity: value('quantity'),
        money: value('money'),
      }),
    ),
    event: prepared<{ person: number; name: string; at: number; props: string }>(db, (value) =>
      q.insertInto('events').values({
        person_id: value('person'),
        name: value('name'),
        at: value('at'),
        props: value('props'),
      }),
    ),
  }
}
