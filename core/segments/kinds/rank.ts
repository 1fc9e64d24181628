import { sql, type RawBuilder, type SqlBool } from 'kysely'
import { engagement } from '../../standing'
import type { PersonFacts } from '../person-facts'
import { isWhole } from '../values/comparison'
import { rankedBy, type RankedBy, type Ranking } from '../values/ranking'
import type { TokenReader } from '../values/token-reader'
import type { About, ConditionKind, Offer } from './kind'

/**
 * The first or last so many of those who have a value at all: "top 10% by money" is a tenth of those who ever bought. Who
 * ties with the last of them is in it too.
 */
export type Ranked = { kind: 'rank' } & Ranking

/** `cut`: the value of the last who is in; null where nobody has one. */
export type ReadyRanked = Ranked & { cut: number | null }

const words: Record<RankedBy, string> = {
  money: 'money',
  orders: 'orders',
  engagement: 'engagement',
  joined: 'joining',
  'last-bought': 'last bought',
  'last-opened': 'last opened',
}

export const rank: ConditionKind<Ranked, ReadyRanked> = {
  read({ end, n, unit, by }) {
    return (end === 'top' || end === 'bottom') &&
      (unit === 'people' || unit === 'percent') &&
      isWhole(n, 1, unit === 'percent' ? 100 : 10_000_000) &&
      rankedBy.includes(by as RankedBy)
      ? { kind: 'rank', end, n, unit, by: by as RankedBy }
      : null
  },
  ready: (of, { cutOf }) => ({ ...of, cut: cutOf(of) }),
  sql({ end, by, cut }) {
    if (cut === null) return sql<SqlBool>`0`
    const than = sql.raw(end === 'top' ? '>=' : '<=')
    return sql<SqlBool>`coalesce(${rankedSql[by]} ${than} ${cut}, 0)`
  },
  predicate({ end, by, cut }) {
    if (cut === null) return () => false
    return (person) => {
      const value = valueOf[by](person)
      return value !== null && (end === 'top' ? value >= cut : value <= cut)
    }
  },
  fact({ by, cut }, person, about) {
    const value = valueOf[by](person)
    const [theirs, last] = [value, cut].map((one) =>
      one === null ? 'nothing' : show(by, one, about),
    )
    return cut === null ? 'nobody has any' : `${theirs}; the last who is in has ${last}`
  },
  phrases: (['top', 'bottom'] as const).map((end) => ({
    begins: end,
    read: (r) => parse(r, end),
  })),
  write: ({ end, n, unit, by }) =>
    `${end} ${n}${unit === 'percent' ? '%' : n === 1 ? ' person' : ' people'} by ${words[by]}`,
  offers: () => offers,
}

const offer = (
  said: string,
  also: string,
  by: RankedBy,
  end: Ranking['end'] = 'top',
): Offer<Ranked> => ({
  words: said,
  also,
  of: { kind: 'rank', end, n: 10, unit: 'percent', by },
})
const offers = [
  offer('Spent most: the top tenth', 'top 10% percent best customers money revenue', 'money'),
  offer('Bought most often: the top tenth', 'top 10% percent orders purchases', 'orders'),
  offer('Most engaged: the top tenth', 'top 10% percent keenest best readers', 'engagement'),
  offer('Least engaged: the bottom tenth', 'bottom 10% percent worst', 'engagement', 'bottom'),
  offer('Spent least: the bottom tenth', 'bottom 10% percent money', 'money', 'bottom'),
  offer('Joined last: the latest tenth', 'top 10% percent newest date', 'joined'),
]

/** What people are put in order by, as an expression on `facts`; null where somebody has none. */
export const rankedSql: Record<RankedBy, RawBuilder<number | null>> = {
  money: sql`case when facts.orders > 0 then facts.spent end`,
  orders: sql`nullif(facts.orders, 0)`,
  engagement: sql`facts.keenness`,
  joined: sql`facts.joined_at`,
  'last-bought': sql`facts.last_order_at`,
  'last-opened': sql`facts.last_opened_at`,
}

const latest = (times: (number | null)[]) =>
  times.reduce((a, b) => (a === null || (b !== null && b > a) ? b : a), null)

const valueOf: Record<RankedBy, (person: PersonFacts) => number | null> = {
  money: ({ orders }) => (orders.length ? orders.reduce((sum, { money }) => sum + money, 0) : null),
  orders: ({ orders }) => orders.length || null,
  engagement: ({ keenness }) => keenness,
  joined: ({ joinedAt }) => joinedAt,
  'last-bought': ({ orders }) => latest(orders.map(({ at }) => at)),
  'last-opened': ({ mail }) => latest(mail.map(({ openedAt }) => openedAt)),
}

function show(by: RankedBy, value: number, { names, asked, day }: About): string {
  switch (by) {
    case 'money':
      return (value / 10 ** names.moneyDigits).toFixed(names.moneyDigits)
    case 'orders':
      return `${value} ${value === 1 ? 'order' : 'orders'}`
    case 'engagement':
      return `engagement ${engagement(value, asked.now).toFixed(2)}`
    default:
      return day(value)
  }
}

function parse(r: TokenReader, end: Ranking['end']): Ranked {
  const at = r.next
  const n = r.count(1, 10_000_000)
  const percent = r.take('%') || r.take('percent')
  if (percent && n > 100) throw r.fault('At most 100% can be asked for.', at)
  if (!percent && !r.take('people')) r.expect('person')
  r.expect('by')
  const by = parseBy(r)
  return { kind: 'rank', end, n, unit: percent ? 'percent' : 'people', by }
}

function parseBy(r: TokenReader): RankedBy {
  for (const by of rankedBy) {
    const said = words[by].split(' ')
    if (!r.areWords(...said)) continue
    r.next += said.length
    return by
  }
  throw r.fault(`One of these is needed here: ${Object.values(words).join(', ')}.`)
}
