import { sql, type SqlBool } from 'kysely'
import type { SubscriptionState } from '../../people/subscription'
import type { Names } from '../names'
import { isText, isWhole, readTime, type TimeComparison } from '../values/comparison'
import { momentsOf } from '../values/moments'
import { parseTime } from '../values/parse'
import { inMoments } from '../values/sql'
import { isIn } from '../values/holds'
import type { TokenReader } from '../values/token-reader'
import { named, quote, writeTime } from '../values/write'
import type { ConditionKind } from './kind'

/** How somebody stands with a list. */
export interface OnList {
  kind: 'on-list'
  listId: number
  state: SubscriptionState
  since: TimeComparison | null
  /** By which way the present state came about: "import", "form" … */
  way: string | null
}

/** Lists up to this id have a bit in `facts.lists`. */
const MOST_BITS = 62

const hasBit = ({ listId, state, since, way }: Omit<OnList, 'kind'>) =>
  state === 'subscribed' && !since && !way && listId <= MOST_BITS

const states: readonly unknown[] = ['pending', 'subscribed', 'unsubscribed']

export const onList: ConditionKind<OnList> = {
  read({ listId, state, since, way = null }) {
    const when = since == null ? null : readTime(since)
    return isWhole(listId, 1) &&
      states.includes(state) &&
      (when !== null || since == null) &&
      (way === null || isText(way))
      ? { kind: 'on-list', listId, state: state as SubscriptionState, since: when, way }
      : null
  },
  ready: (of, { lists }) => (lists.has(of.listId) ? of : 'The list asked for here is gone.'),
  sql({ listId, state, since, way }, asked) {
    // Whom a list has now stands with the person's facts, a bit for each list of a lower id.
    if (hasBit({ listId, state, since, way }))
      return sql<SqlBool>`(facts.lists & (1 << ${listId})) <> 0`
    const parts = [
      sql<SqlBool>`s.person_id = facts.person_id`,
      sql<SqlBool>`s.list_id = ${listId}`,
      sql<SqlBool>`s.state = ${state}`,
    ]
    if (since) parts.push(inMoments(sql`s.since`, momentsOf(since, asked)))
    if (way)
      parts.push(
        sql<SqlBool>`coalesce((select e.way from evidence e where e.person_id = s.person_id and e.list_id = s.list_id order by e.id desc limit 1) = ${way}, 0)`,
      )
    return sql<SqlBool>`exists (select 1 from subscriptions s where ${sql.join(parts, sql` and `)})`
  },
  inFacts: hasBit,
  ids({ listId, state, since, way }, asked) {
    if (way !== null) return null
    const during = since ? inMoments(sql`since`, momentsOf(since, asked)) : sql`true`
    return sql`select person_id from subscriptions where list_id = ${listId} and state = ${state} and ${during}`
  },
  predicate({ listId, state, since, way }, asked) {
    const moments = since && momentsOf(since, asked)
    return (person) => {
      const found = person.subscriptions.get(listId)
      return (
        found !== undefined &&
        found.state === state &&
        (moments === null || isIn(found.since, moments)) &&
        (way === null || found.way === way)
      )
    }
  },
  fact({ listId }, person, { day }) {
    const found = person.subscriptions.get(listId)
    return found
      ? `${found.state} since ${day(found.since)}${found.way ? `, by ${found.way}` : ''}`
      : 'never on this list'
  },
  phrases: [
    { begins: 'on list', read: (r, names) => parse(r, names, 'subscribed') },
    { begins: 'joined list', read: (r, names) => parse(r, names, 'subscribed') },
    { begins: 'pending on list', read: (r, names) => parse(r, names, 'pending') },
    { begins: 'unsubscribed from list', read: (r, names) => parse(r, names, 'unsubscribed') },
    // As it was called earlier.
    { begins: 'left list', read: (r, names) => parse(r, names, 'unsubscribed') },
  ],
  write({ listId, state, since, way }, { lists }) {
    const verb = {
      pending: 'pending on',
      subscribed: since ? 'joined' : 'on',
      unsubscribed: 'unsubscribed from',
    }[state]
    const when = since ? ` ${writeTime(since)}` : ''
    return `${verb} list ${named(listId, lists)}${when}${way ? ` by ${quote(way)}` : ''}`
  },
  offers: ({ lists }) =>
    lists.flatMap(({ id, name }) => {
      const of = (state: SubscriptionState, way: string | null = null): OnList => ({
        kind: 'on-list',
        listId: id,
        state,
        since: null,
        way,
      })
      return [
        { words: `On list ${name}`, also: 'subscribed', of: of('subscribed') },
        { words: `Unsubscribed from list ${name}`, also: 'left gone', of: of('unsubscribed') },
        {
          words: `Joined list ${name} by an import`,
          also: 'imported file csv subscribed',
          of: of('subscribed', 'import'),
        },
        { words: `Pending on list ${name}`, also: 'not confirmed', of: of('pending') },
      ]
    }),
}

function parse(r: TokenReader, { lists }: Names, state: SubscriptionState): OnList {
  const listId = r.named(lists, 'list')
  const isTime = ['before', 'after', 'on', 'in', 'from', 'between'].some((word) => r.is(word))
  const since = isTime ? parseTime(r) : null
  const way = r.take('by') ? r.string() : null
  return { kind: 'on-list', listId, state, since, way }
}
