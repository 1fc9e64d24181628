import { sql, type RawBuilder } from 'kysely'
import type { PersonFacts } from '../person-facts'
import {
  familyOf,
  isText,
  isWithin,
  propertyFamily,
  readComparison,
  type Comparison,
} from '../values/comparison'
import { sinceOf, type Asked } from '../values/moments'
import { parseComparison, parseTimes, parseWithin } from '../values/parse'
import { compareJson } from '../values/sql'
import { valueTest } from '../values/holds'
import { isOnce, notOnce, once, readTimes, timesIs, timesSql, type Times } from '../values/times'
import type { TokenReader } from '../values/token-reader'
import { quote, writeComparison, writeTimes, writeWithin } from '../values/write'
import type { ConditionKind } from './kind'

/** How often somebody did what a program told of: an event. `withinDays` null: at any time up to now. */
export interface DidEvent {
  kind: 'event'
  name: string
  times: Times
  withinDays: number | null
  where: Carried | null
}

/** What is asked of something that an event carried. */
export interface Carried {
  property: string
  test: Comparison
}

const propertyForm = /^[\w .-]{1,60}$/

export const event: ConditionKind<DidEvent> = {
  read(json) {
    const times = readTimes(json.times)
    const where = json.where == null ? null : readCarried(json.where)
    return times && isText(json.name) && (where || json.where == null) && isWithin(json.withinDays)
      ? { kind: 'event', name: json.name, times, withinDays: json.withinDays ?? null, where }
      : null
  },
  ready: (of) => of,
  sql({ name, times, withinDays, where }, asked) {
    const since = sinceOf(withinDays, asked.now)
    const parts = [sql`v.person_id = facts.person_id and v.name = ${name}`]
    if (since !== null) parts.push(sql`v.at >= ${since}`)
    if (where) parts.push(carriedSql(where, sql`v.props`, asked))
    return timesSql(
      sql`(select count(*) from events v where ${sql.join(parts, sql` and `)})`,
      times,
    )
  },
  predicate(of, asked) {
    const count = counter(of, asked)
    return (person) => timesIs(count(person), of.times)
  },
  fact(of, person, { asked }) {
    const count = counter(of, asked)(person)
    return count === 1 ? 'once' : `${count} times`
  },
  phrases: [{ begins: 'did', read: parse }],
  write({ name, times, withinDays, where }) {
    const also = where ? ` where ${quote(where.property)} ${writeComparison(where.test)}` : ''
    return `did ${quote(name)}${writeTimes(times)}${writeWithin(withinDays)}${also}`
  },
  offers: ({ events }) =>
    events.map((name) => ({
      words: `Did ${name}`,
      also: 'event visited happened',
      of: { kind: 'event', name, times: once, withinDays: 30, where: null },
    })),
  never: (of) => (isOnce(of.times) ? { ...of, times: notOnce } : null),
}

/** Whether what an event carried (`props`, its JSON) is as asked. */
export function carriedSql({ property, test }: Carried, props: RawBuilder<unknown>, asked: Asked) {
  const value = (of: RawBuilder<unknown>) => of
  return compareJson(props, `$."${property}"`, propertyFamily(test), test, asked, value)
}

/** Reads what is asked of an event from JSON that came from outside; null where it is nothing of the kind. */
export function readCarried(json: unknown): Carried | null {
  if (typeof json !== 'object' || json === null) return null
  const { property, test } = json as Record<string, unknown>
  const read = readComparison(test)
  const fits = read && ['any', 'text', 'number', 'yesno'].includes(familyOf(read))
  return fits && typeof property === 'string' && propertyForm.test(property)
    ? { property, test: read }
    : null
}

function counter({ name, withinDays, where }: DidEvent, asked: Asked) {
  const since = sinceOf(withinDays, asked.now)
  const test = where && valueTest(propertyFamily(where.test), where.test, asked)
  return ({ events }: PersonFacts) =>
    events.filter(
      (one) =>
        one.name === name &&
        (since === null || one.at >= since) &&
        (!test || test(one.props[where!.property])),
    ).length
}

function parse(r: TokenReader): DidEvent {
  const name = r.string()
  const times = parseTimes(r)
  const withinDays = parseWithin(r)
  if (!r.take('where')) return { kind: 'event', name, times, withinDays, where: null }
  const at = r.next
  const property = r.string()
  if (!propertyForm.test(property))
    throw r.fault('A property has letters, figures, spaces, dots and hyphens only.', at)
  return { kind: 'event', name, times, withinDays, where: { property, test: parseComparison(r) } }
}
