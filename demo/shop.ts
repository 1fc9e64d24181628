import { DAY, HOUR } from '../core/time'
import { prepared, q, run, type Database } from '../database'
import type { Chance } from './chance'
import { HISTORY, type DemoPerson } from './people'

/** What the workshop sells: by category, names and prices in pounds. */
const range: Record<string, [string, number][]> = {
  'single-line': [
    ['Sandreach Sled', 24],
    ['Barn Door 3', 38],
    ['Gull', 46],
    ['Pocket Sled', 16],
    ['Rokkaku 4', 64],
    ['Box kite, linen', 88],
    ['Harbour Eddy', 34],
    ['Star, six points', 52],
    ['Flat Tern', 29],
    ['Night Lantern', 71],
  ],
  delta: [
    ['Delta 3', 42],
    ['Delta 5', 68],
    ['Delta 7', 94],
    ['Delta 7 Vent', 102],
    ['Delta Conyne', 84],
    ['Little Delta', 22],
  ],
  stunt: [
    ['Squall', 112],
    ['Squall Vented', 124],
    ['Petrel', 149],
    ['Petrel Light', 158],
    ['Quad Skua', 186],
    ['Practice Wing', 58],
    ['Sheerwater', 134],
    ['Indoor Moth', 96],
  ],
  power: [
    ['Hauler 2', 168],
    ['Hauler 3', 204],
    ['Hauler 5', 288],
    ['Trainer bar kite', 139],
    ['Buggy sail', 246],
  ],
  kits: [
    ['Sled kit', 14],
    ['Barn Door kit', 21],
    ['Delta kit', 27],
    ['Class kit for ten', 89],
    ['Tails and ribbons', 9],
    ['Bamboo spar kit', 18],
  ],
  line: [
    ['Line 25 kg, 100 m', 11],
    ['Line 50 kg, 100 m', 14],
    ['Line 90 kg, 50 m', 17],
    ['Dual line set, 25 m', 26],
    ['Quad line set, 30 m', 39],
    ['Winder', 7],
    ['Halo reel', 19],
    ['Ground stake', 6],
  ],
  parts: [
    ['Carbon spar 5 mm', 5],
    ['Carbon spar 6 mm', 6],
    ['Fibreglass spar', 3],
    ['Connectors, ten', 4],
    ['Ripstop patch set', 8],
    ['Bridle line, 10 m', 4],
    ['Edge tape, 25 m', 7],
    ['Swivels, five', 3],
  ],
  courses: [
    ['Build a sled: one day', 45],
    ['Build a delta: weekend', 120],
    ['Repair evening', 12],
    ['Stunt flying, beginners', 55],
    ['Stunt flying, teams', 75],
    ['Sewing ripstop', 38],
    ['Family kite day', 30],
    ['Workshop key, a year', 90],
    ['Line work', 18],
  ],
}

/**
 * The shop's products, orders, baskets and page views: about one order for two people on file, most by
 * those who read gladly, more before summer and Christmas.
 */
export function makeShop(db: Database, chance: Chance, people: DemoPerson[], now: number) {
  const products = Object.entries(range).flatMap(([category, things]) =>
    things.map(([name, pounds]) => {
      const key = name.toLowerCase().replace(/[^a-z0-9]+/g, '-')
      const price = pounds * 100
      const { id } = run(
        db,
        q.insertInto('products').values({ key, name, category, price, created_at: now - HISTORY }),
      )
      return { id, key, category, price }
    }),
  )
  const write = shopStatements(db)
  let number = 10_000
  for (const person of people) {
    const buyer = chance.is(0.16 + 0.33 * person.keen)
    const from = Math.max(person.joinedAt, now - HISTORY)
    const likes = chance.pick(Object.keys(range))
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
      const at = moment()
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
