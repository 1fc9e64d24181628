import { sql, type RawBuilder, type SqlBool } from 'kysely'
import type { Names } from '../names'
import type { PersonFacts } from '../person-facts'
import {
  familyOf,
  isText,
  isWithin,
  readComparison,
  type NumberComparison,
} from '../values/comparison'
import { fold } from '../values/fold'
import { sinceOf, type Asked } from '../values/moments'
import { parseNumber, parseWithin } from '../values/parse'
import { numberIs as numberSql } from '../values/sql'
import { numberIs } from '../values/holds'
import type { TokenReader } from '../values/token-reader'
import { quote, writeNumber, writeWithin } from '../values/write'
import type { ConditionKind } from './kind'

/** How often somebody bought, or how much money they spent. `withinDays` null: at any time up to now. */
export interface Orders {
  kind: 'orders'
  what: 'count' | 'money'
  /** Money in minor units. */
  test: NumberComparison
  product: string | null
  category: string | null
  withinDays: number | null
}

/** Of all orders, whatever was in them: a person's facts say how many and how much. */
const isSum = ({ product, category, withinDays }: Orders) =>
  product === null && category === null && withinDays === null

export const orders: ConditionKind<Orders> = {
  read(json) {
    const { what, product = null, category = null, withinDays } = json
    const test = readComparison(json.test)
    return test &&
      familyOf(test) === 'number' &&
      (what === 'count' || what === 'money') &&
      (product === null || isText(product)) &&
      (category === null || isText(category)) &&
      isWithin(withinDays)
      ? {
          kind: 'orders',
          what,
          test: test as NumberComparison,
          product,
          category,
          withinDays: withinDays ?? null,
        }
      : null
  },
  ready: (of) => of,
  inFacts: isSum,
  sql(of, { now }) {
    const since = sinceOf(of.withinDays, now)
    const plain = of.product === null && of.category === null
    if (isSum(of)) {
      const value = of.what === 'count' ? sql`facts.orders` : sql`+facts.spent`
      return numberSql(value, of.test, 'never null')
    }
    const rows = plain
      ? sql`select o.id, o.money from orders o where o.person_id = facts.person_id`
      : sql`select o.id, sum(i.money) as money from orders o join order_items i on i.order_id = o.id join products d on d.id = i.product_id where o.person_id = facts.person_id`
    const parts: RawBuilder<unknown>[] = [rows]
    if (since !== null) parts.push(sql` and o.at >= ${since}`)
    if (of.product !== null) parts.push(sql` and fold(d.name) = ${fold(of.product)}`)
    if (of.category !== null) parts.push(sql` and fold(d.category) = ${fold(of.category)}`)
    if (!plain) parts.push(sql` group by o.id`)
    const what = of.what === 'count' ? sql`count(*)` : sql`coalesce(sum(money), 0)`
    const value = sql`(select ${what} from (${sql.join(parts, sql``)}))`
    // Nobody can have ordered lately whose last order is older; it spares counting for most people.
    const none = numberSql(sql`0`, of.test)
    const ever =
      since === null ? sql`facts.orders > 0` : sql`coalesce(facts.last_order_at >= ${since}, 0)`
    return sql<SqlBool>`(case when ${ever} then ${numberSql(value, of.test)} else ${none} end)`
  },
  predicate(of, asked) {
    const value = counter(of, asked)
    return (person) => numberIs(value(person), of.test)
  },
  fact(of, person, { names, asked }) {
    const value = counter(of, asked)(person)
    return of.what === 'count'
      ? `${value} ${value === 1 ? 'order' : 'orders'}`
      : (value / 10 ** names.moneyDigits).toFixed(names.moneyDigits)
  },
  phrases: [
    { begins: 'bought', read: (r, names) => parse(r, names, 'count') },
    { begins: 'spent', read: (r, names) => parse(r, names, 'money') },
  ],
  write({ what, test, product, category, withinDays }, { moneyDigits }) {
    const much = writeNumber(test, what === 'money' ? moneyDigits : 0)
    const of = product === null ? '' : ` on product ${quote(product)}`
    const within = category === null ? '' : ` in category ${quote(category)}`
    const verb = what === 'count' ? `bought ${much} times` : `spent ${much}`
    return `${verb}${of}${within}${writeWithin(withinDays)}`
  },
  offers: ({ categories, products }) => [
    { words: 'Bought something', also: 'once ordered customers buyers purchases', of: bought({}) },
    {
      words: 'Bought lately',
      also: 'recent orders days customers buyers purchases',
      of: bought({ withinDays: 60 }),
    },
    {
      words: 'Bought once',
      also: 'one order only first',
      of: bought({ test: { is: 'number', than: 'equal', number: 1 } }),
    },
    {
      words: 'Bought twice or more',
      also: 'again repeat several orders buyers purchases',
      of: bought({ test: { is: 'number', than: 'over', number: 1 } }),
    },
    {
      words: 'Never bought',
      also: 'did not buy no order not customers buyers purchases',
      of: bought({ test: { is: 'number', than: 'equal', number: 0 } }),
    },
    {
      words: 'Spent at least an amount',
      also: 'money worth best customers revenue',
      of: bought({ what: 'money', test: { is: 'number', than: 'at-least', number: 5_000 } }),
    },
    ...categories.map((category) => ({
      words: `Bought in category ${category}`,
      also: 'order',
      of: bought({ category }),
    })),
    ...products.map((product) => ({
      words: `Bought ${product}`,
      also: 'order product',
      of: bought({ product }),
      many: true as const,
    })),
  ],
  never({ test, what, ...of }) {
    const once = test.is === 'number' && test.than === 'at-least' && test.number === 1
    return what === 'count' && once
      ? { ...of, what, test: { is: 'number', than: 'equal', number: 0 } }
      : null
  },
}

const bought = (over: Partial<Orders>): Orders => ({
  kind: 'orders',
  what: 'count',
  test: { is: 'number', than: 'over', number: 0 },
  product: null,
  category: null,
  withinDays: null,
  ...over,
})

/** How many orders, or how much money, the condition counts for a person. */
function counter({ what, product, category, withinDays }: Orders, { now }: Asked) {
  const since = sinceOf(withinDays, now)
  const named = product === null ? null : fold(product)
  const within = category === null ? null : fold(category)
  return ({ orders }: PersonFacts) => {
    let count = 0
    let money = 0
    for (const order of orders) {
      if (since !== null && order.at < since) continue
      if (named === null && within === null) {
        count++
        money += order.money
        continue
      }
      const items = order.items.filter(
        (item) =>
          (named === null || fold(item.product) === named) &&
          (within === null || fold(item.category) === within),
      )
      if (items.length) count++
      for (const item of items) money += item.money
    }
    return what === 'count' ? count : money
  }
}

function parse(r: TokenReader, { moneyDigits }: Names, what: Orders['what']): Orders {
  const test = what === 'money' ? parseNumber(r, moneyDigits) : parseOften(r)
  let product: string | null = null
  let category: string | null = null
  if (r.take('on')) {
    r.expect('product')
    product = r.string()
  }
  if (r.is('in') && fold(r.follows.text) === 'category') {
    r.next += 2
    category = r.string()
  }
  return { kind: 'orders', what, test, product, category, withinDays: parseWithin(r) }
}

/** How often something was bought: "bought" alone is at least once. */
function parseOften(r: TokenReader): NumberComparison {
  const often = r.take('once') ? 1 : r.take('twice') ? 2 : null
  if (often !== null) return { is: 'number', than: 'equal', number: often }
  const counts = ['at', 'exactly', 'over', 'under', 'more', 'less', 'not', 'between']
  if (r.token.kind !== 'number' && !counts.some((word) => r.is(word)))
    return { is: 'number', than: 'at-least', number: 1 }
  const test = parseNumber(r, 0)
  if (!r.take('times')) r.expect('time')
  return test
}
