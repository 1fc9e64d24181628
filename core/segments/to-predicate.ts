import { isIn as inCount } from '../counting'
import { propertyFamily, type Comparison, type Family, type NumberComparison } from './comparison'
import { fold } from './fold'
import {
  anniversariesWithin,
  daysOf,
  momentsOf,
  sinceOf,
  type Asked,
  type MomentRange,
} from './moments'
import type { MailFact, PersonFacts } from './person-facts'
import type { ReadyRule } from './ready'
import { asksWhoWasSent, type MailAct, type Times } from './rule'
import { tierSpans } from './tier-spans'

type Leaf<K extends ReadyRule['kind']> = Extract<ReadyRule, { kind: K }>
export type Predicate = (person: PersonFacts) => boolean

/**
 * The rule as a question about one person. Agrees with `ruleToSql` on every rule and every person.
 * `null` is the rule that could not be made ready: nobody.
 */
export function ruleToPredicate(rule: ReadyRule | null, asked: Asked): Predicate {
  if (rule === null) return () => false
  switch (rule.kind) {
    case 'all': {
      const parts = rule.of.map((part) => ruleToPredicate(part, asked))
      return (person) => parts.every((part) => part(person))
    }
    case 'any': {
      const parts = rule.of.map((part) => ruleToPredicate(part, asked))
      return (person) => parts.some((part) => part(person))
    }
    case 'none': {
      const parts = rule.of.map((part) => ruleToPredicate(part, asked))
      return (person) => !parts.some((part) => part(person))
    }
    case 'segment':
      return ruleToPredicate(rule.of, asked)
    case 'frozen':
      return (person) => person.frozen.has(rule.segmentId)
    case 'field': {
      const test = valueTest(rule.family, rule.test, asked)
      return (person) => test(person.values[rule.key])
    }
    case 'joined': {
      const moments = momentsOf(rule.when, asked)
      return (person) => isIn(person.joinedAt, moments)
    }
    case 'tagged':
      return (person) => person.tags.has(rule.tagId)
    case 'on-list':
      return onListTest(rule, asked)
    case 'address': {
      const test = valueTest('text', rule.test, asked)
      return rule.part === 'whole'
        ? (person) => test(person.normal)
        : (person) => test(person.domain)
    }
    case 'mail': {
      const count = mailCount(rule, asked)
      if (!asksWhoWasSent(rule)) return (person) => timesIs(count(person), rule.times)
      const sent = mailCount({ ...rule, did: 'sent' }, asked)
      return (person) => sent(person) > 0 && timesIs(count(person), rule.times)
    }
    case 'orders': {
      const value = ordersValue(rule, asked)
      return (person) => numberIs(value(person), rule.test)
    }
    case 'ordered': {
      const moments = momentsOf(rule.when, asked)
      const pick = rule.which === 'first' ? Math.min : Math.max
      return ({ orders }) =>
        orders.length > 0 &&
        isIn(
          orders.reduce((at, order) => pick(at, order.at), orders[0]!.at),
          moments,
        )
    }
    case 'event': {
      const count = eventCount(rule, asked)
      return (person) => timesIs(count(person), rule.times)
    }
    case 'sequence': {
      const { sequenceId, is } = rule
      return is === 'never'
        ? (person) => !person.sequences.has(sequenceId)
        : (person) => person.sequences.get(sequenceId)?.state === is
    }
    case 'tier': {
      const spans = tierSpans(rule.of, asked.now)
      return ({ keenness }) =>
        spans.some(
          ({ from, to }) =>
            (from === null || (keenness !== null && keenness >= from)) &&
            (to === null || keenness === null || keenness < to),
        )
    }
  }
}

function isIn(at: number | null, { from, to }: MomentRange): boolean {
  return at !== null && (from === undefined || at >= from) && (to === undefined || at < to)
}

function onListTest({ listId, state, since, way }: Leaf<'on-list'>, asked: Asked): Predicate {
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
}

/** A question about one value; what is not of the family counts as missing. */
function valueTest(family: Family, test: Comparison, asked: Asked): (value: unknown) => boolean {
  if (family === 'choices') return choicesTest(test)
  const value = present[family]
  switch (test.is) {
    case 'empty':
      return (given) => value(given) === null
    case 'known':
      return (given) => value(given) !== null
    case 'equal': {
      const wanted = fold(test.text)
      return (given) => folded(given) === wanted
    }
    case 'not-equal': {
      const wanted = fold(test.text)
      return (given) => folded(given) !== wanted
    }
    case 'contains': {
      const wanted = fold(test.text)
      return (given) => folded(given)?.includes(wanted) ?? false
    }
    case 'starts': {
      const wanted = fold(test.text)
      return (given) => folded(given)?.startsWith(wanted) ?? false
    }
    case 'ends': {
      const wanted = fold(test.text)
      return (given) => folded(given)?.endsWith(wanted) ?? false
    }
    case 'one-of': {
      const wanted = new Set<string | null>(test.texts.map(fold))
      return (given) => wanted.has(folded(given))
    }
    case 'number':
    case 'between':
      return (given) => numberIs(value(given) as number | null, test)
    case 'yes':
      return (given) => value(given) === true
    case 'no':
      return (given) => value(given) === false
    case 'anniversary': {
      const days = new Set(anniversariesWithin(test.days, asked))
      return (given) => {
        const day = value(given) as string | null
        return day !== null && days.has(day.slice(5))
      }
    }
    case 'includes':
    case 'includes-not':
      throw new Error(`Several choices are not compared as ${family}.`)
    default: {
      const { after, upTo, before } = daysOf(test, asked)
      return (given) => {
        const day = value(given) as string | null
        return (
          day !== null &&
          (after === undefined || day > after) &&
          (upTo === undefined || day <= upTo) &&
          (before === undefined || day < before)
        )
      }
    }
  }

  function folded(given: unknown): string | null {
    const text = value(given)
    return typeof text === 'string' ? fold(text) : null
  }
}

const text = (value: unknown) => (typeof value === 'string' && value !== '' ? value : null)

/** The value as one of the family, or null where it is missing. */
const present: Record<
  Exclude<Family, 'choices'>,
  (value: unknown) => string | number | boolean | null
> = {
  text,
  day: (value) => (typeof value === 'string' && dayForm.test(value) ? value : null),
  number: (value) => (typeof value === 'number' ? value : null),
  yesno: (value) => (typeof value === 'boolean' ? value : null),
  any: (value) => (typeof value === 'number' || typeof value === 'boolean' ? value : text(value)),
}
const dayForm = /^\d{4}-\d\d-\d\d$/

function choicesTest(test: Comparison): (value: unknown) => boolean {
  const wanted = 'text' in test ? fold(test.text) : null
  const has = (value: unknown) =>
    Array.isArray(value) &&
    value.some(
      (one) => typeof one === 'string' && (wanted === null ? one !== '' : fold(one) === wanted),
    )
  return test.is === 'empty' || test.is === 'includes-not' ? (value) => !has(value) : has
}

function numberIs(value: number | null, test: NumberComparison): boolean {
  if (value === null) return test.is === 'number' && test.than === 'not-equal'
  if (test.is === 'between') return value >= test.from && value <= test.to
  switch (test.than) {
    case 'equal':
      return value === test.number
    case 'not-equal':
      return value !== test.number
    case 'under':
      return value < test.number
    case 'over':
      return value > test.number
    case 'at-least':
      return value >= test.number
    case 'at-most':
      return value <= test.number
  }
}

function timesIs(count: number, { is, n }: Times): boolean {
  if (is === 'at-least') return count >= n
  return is === 'at-most' ? count <= n : count === n
}

/** When a person did what is asked with one mailing; null where they did not. */
export const momentOf: Record<MailAct, (mail: MailFact) => number | null> = {
  sent: (mail) => mail.acceptedAt,
  delivered: (mail) => (inCount(mail.state, 'delivered') ? mail.acceptedAt : null),
  opened: (mail) => mail.openedAt,
  clicked: (mail) => mail.clickedAt,
  bounced: (mail) => (inCount(mail.state, 'bounced') ? mail.at : null),
  complained: (mail) => (inCount(mail.state, 'complained') ? mail.at : null),
  left: (mail) => mail.leftAt,
}

/** How many mailings a condition on mail counts for a person. */
export function mailCount(
  { did, of, withinDays }: Leaf<'mail'>,
  { now }: Asked,
): (person: PersonFacts) => number {
  const since = sinceOf(withinDays, now)
  const counts = (mail: MailFact) => {
    const at = momentOf[did](mail)
    return at !== null && (since === null || at >= since)
  }
  if (of.which === 'mailing' && of.link !== null && did === 'clicked')
    return ({ clicks }) =>
      clicks.some(
        ({ mailingId, link, at }) =>
          mailingId === of.id && link === of.link && (since === null || at >= since),
      )
        ? 1
        : 0
  if (of.which === 'mailing')
    return ({ mail }) => mail.filter((one) => one.mailingId === of.id && counts(one)).length
  if (of.which === 'sequence')
    return ({ mail }) => mail.filter((one) => one.sequenceId === of.id && counts(one)).length
  if (of.which === 'last') return ({ mail }) => lastSent(mail, of.n).filter(counts).length
  return ({ mail }) => mail.filter(counts).length
}

function lastSent(mail: readonly MailFact[], n: number): MailFact[] {
  return mail
    .filter(({ acceptedAt }) => acceptedAt !== null)
    .sort((a, b) => b.acceptedAt! - a.acceptedAt! || b.mailingId - a.mailingId)
    .slice(0, n)
}

/** How many orders, or how much money, a condition on orders counts for a person. */
export function ordersValue(
  { what, product, category, withinDays }: Leaf<'orders'>,
  { now }: Asked,
): (person: PersonFacts) => number {
  const since = sinceOf(withinDays, now)
  const named = product === null ? null : fold(product)
  const within = category === null ? null : fold(category)
  return ({ orders }) => {
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

/** How many events a condition counts for a person. */
export function eventCount(
  { name, withinDays, where }: Leaf<'event'>,
  asked: Asked,
): (person: PersonFacts) => number {
  const since = sinceOf(withinDays, asked.now)
  const test = where && valueTest(propertyFamily(where.test), where.test, asked)
  return ({ events }) =>
    events.filter(
      (event) =>
        event.name === name &&
        (since === null || event.at >= since) &&
        (!test || test(event.props[where!.property])),
    ).length
}
