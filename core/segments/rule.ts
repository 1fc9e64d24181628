import type { SubscriptionState } from '../people/subscription'
import { tiers, type Tier } from '../standing'
import {
  familyOf,
  isText,
  isWhole,
  MOST_DAYS,
  readComparison,
  readTime,
  type Comparison,
  type NumberComparison,
  type TextComparison,
  type TimeComparison,
} from './comparison'

/** A rule is a tree: groups of conditions. An empty group `all` or `none` keeps everybody, `any` nobody. */
export type Rule = Group | Condition

export interface Group {
  kind: 'all' | 'any' | 'none'
  of: Rule[]
}

/** What a rule can ask. `withinDays` null: at any time up to now. */
export type Condition =
  | { kind: 'field'; key: string; test: Comparison }
  | { kind: 'joined'; when: TimeComparison }
  | { kind: 'tagged'; tagId: number }
  | {
      kind: 'on-list'
      listId: number
      state: SubscriptionState
      since: TimeComparison | null
      /** By which way the present state came about: "import", "form" … */
      way: string | null
    }
  | { kind: 'address'; part: 'whole' | 'domain'; test: TextComparison }
  | {
      kind: 'mail'
      did: MailAct
      of: WhichMail
      times: Times
      withinDays: number | null
      /** Whether who was sent none of these mailings did not open or click; see {@link asksWhoWasSent}. */
      orUnsent?: true
    }
  | {
      kind: 'orders'
      what: 'count' | 'money'
      /** Money in minor units. */
      test: NumberComparison
      product: string | null
      category: string | null
      withinDays: number | null
    }
  | { kind: 'ordered'; which: 'first' | 'last'; when: TimeComparison }
  | {
      kind: 'event'
      name: string
      times: Times
      withinDays: number | null
      where: { property: string; test: Comparison } | null
    }
  | { kind: 'segment'; segmentId: number }
  | { kind: 'sequence'; sequenceId: number; is: SequenceStanding }
  | { kind: 'tier'; of: Tier[] }

/** Inside now; came to its end at least once; or never came in. Who left on the way is none of them. */
export type SequenceStanding = (typeof sequenceStandings)[number]
export const sequenceStandings = ['inside', 'finished', 'never'] as const

/** `sent`: taken by the mail server; `delivered`: and not come back. */
export type MailAct = (typeof mailActs)[number]
export const mailActs = [
  'sent',
  'delivered',
  'opened',
  'clicked',
  'bounced',
  'complained',
  'left',
] as const

/**
 * Whether a condition holds only for somebody who was sent one of its mailings: who opened or clicked none of them can be
 * told only then. Where it says `orUnsent`, everybody else is in it too.
 */
export function asksWhoWasSent({
  did,
  times,
  orUnsent,
}: Pick<Extract<Condition, { kind: 'mail' }>, 'did' | 'times' | 'orUnsent'>): boolean {
  return (did === 'opened' || did === 'clicked') && allowsNone(times) && !orUnsent
}

/** Whether nothing at all is as many times as asked for. */
export function allowsNone({ is, n }: Times): boolean {
  return is === 'at-most' || n === 0
}

/** Any mailing, one mailing (or one link of it), those of a sequence, or the last `n` that the person was sent. */
export type WhichMail =
  | { which: 'any' }
  | { which: 'mailing'; id: number; link: number | null }
  | { which: 'sequence'; id: number }
  | { which: 'last'; n: number }

export interface Times {
  is: 'at-least' | 'at-most' | 'exactly'
  n: number
}

const states = ['pending', 'subscribed', 'unsubscribed']

/** Reads a rule from JSON that came from outside; null where it is none. */
export function readRule(json: unknown, depth = 0): Rule | null {
  if (typeof json !== 'object' || json === null || depth > 20) return null
  const rule = json as Record<string, unknown>
  if (rule.kind !== 'all' && rule.kind !== 'any' && rule.kind !== 'none') return readCondition(rule)
  if (!Array.isArray(rule.of) || rule.of.length > 200) return null
  const of = rule.of.map((part) => readRule(part, depth + 1))
  return of.every((part) => part !== null) ? { kind: rule.kind, of } : null
}

function readCondition(of: Record<string, unknown>): Condition | null {
  switch (of.kind) {
    case 'field': {
      const test = readComparison(of.test)
      return test && typeof of.key === 'string' && /^[a-z_][a-z0-9_]{0,60}$/.test(of.key)
        ? { kind: 'field', key: of.key, test }
        : null
    }
    case 'joined': {
      // Mailings made before rules knew other times have only a number of days.
      const when = readTime(of.when ?? { is: 'last-days', days: of.withinDays })
      return when && { kind: 'joined', when }
    }
    case 'tagged':
      return isWhole(of.tagId, 1) ? { kind: 'tagged', tagId: of.tagId } : null
    case 'on-list': {
      const since = of.since == null ? null : readTime(of.since)
      const way = of.way == null ? null : of.way
      return isWhole(of.listId, 1) &&
        states.includes(of.state as string) &&
        (since !== null || of.since == null) &&
        (way === null || isText(way))
        ? { kind: 'on-list', listId: of.listId, state: of.state as SubscriptionState, since, way }
        : null
    }
    case 'address': {
      const test = readComparison(of.test)
      return test && familyOf(test) === 'text' && (of.part === 'whole' || of.part === 'domain')
        ? { kind: 'address', part: of.part, test: test as TextComparison }
        : null
    }
    case 'mail': {
      const which = readWhich(of.of)
      const times = readTimes(of.times)
      return which && times && mailActs.includes(of.did as MailAct) && isWithin(of.withinDays)
        ? {
            kind: 'mail',
            did: of.did as MailAct,
            of: which,
            times,
            withinDays: of.withinDays ?? null,
            ...(of.orUnsent === true && { orUnsent: true as const }),
          }
        : null
    }
    case 'orders': {
      const test = readComparison(of.test)
      return test &&
        familyOf(test) === 'number' &&
        (of.what === 'count' || of.what === 'money') &&
        (of.product == null || isText(of.product)) &&
        (of.category == null || isText(of.category)) &&
        isWithin(of.withinDays)
        ? {
            kind: 'orders',
            what: of.what,
            test: test as NumberComparison,
            product: of.product ?? null,
            category: of.category ?? null,
            withinDays: of.withinDays ?? null,
          }
        : null
    }
    case 'ordered': {
      const when = readTime(of.when)
      return when && (of.which === 'first' || of.which === 'last')
        ? { kind: 'ordered', which: of.which, when }
        : null
    }
    case 'event': {
      const times = readTimes(of.times)
      const where = of.where == null ? null : readWhere(of.where)
      return times && isText(of.name) && (where || of.where == null) && isWithin(of.withinDays)
        ? { kind: 'event', name: of.name, times, withinDays: of.withinDays ?? null, where }
        : null
    }
    case 'segment':
      return isWhole(of.segmentId, 1) ? { kind: 'segment', segmentId: of.segmentId } : null
    case 'sequence':
      return isWhole(of.sequenceId, 1) && sequenceStandings.includes(of.is as SequenceStanding)
        ? { kind: 'sequence', sequenceId: of.sequenceId, is: of.is as SequenceStanding }
        : null
    case 'tier':
      return Array.isArray(of.of) && of.of.length > 0 && of.of.every((tier) => tiers.includes(tier))
        ? { kind: 'tier', of: tiers.filter((tier) => (of.of as Tier[]).includes(tier)) }
        : null
    default:
      return null
  }
}

function readWhich(json: unknown): WhichMail | null {
  if (typeof json !== 'object' || json === null) return null
  const of = json as Record<string, unknown>
  if (of.which === 'any') return { which: 'any' }
  if (of.which === 'last') return isWhole(of.n, 1, 1_000) ? { which: 'last', n: of.n } : null
  if (of.which === 'sequence') return isWhole(of.id, 1) ? { which: 'sequence', id: of.id } : null
  const link = of.link ?? null
  return of.which === 'mailing' && isWhole(of.id, 1) && (link === null || isWhole(link, 0))
    ? { which: 'mailing', id: of.id, link }
    : null
}

function readTimes(json: unknown): Times | null {
  if (typeof json !== 'object' || json === null) return null
  const { is, n } = json as Record<string, unknown>
  return (is === 'at-least' || is === 'at-most' || is === 'exactly') && isWhole(n, 0, 1_000_000)
    ? { is, n }
    : null
}

function readWhere(json: unknown): { property: string; test: Comparison } | null {
  if (typeof json !== 'object' || json === null) return null
  const { property, test } = json as Record<string, unknown>
  const read = readComparison(test)
  const fits = read && ['any', 'text', 'number', 'yesno'].includes(familyOf(read))
  return fits && typeof property === 'string' && /^[\w .-]{1,60}$/.test(property)
    ? { property, test: read }
    : null
}

function isWithin(value: unknown): value is number | null | undefined {
  return value == null || isWhole(value, 1, MOST_DAYS)
}

/** The rule with each of its conditions changed. */
export function mapConditions(rule: Rule, change: (part: Condition) => Condition): Rule {
  return isGroup(rule)
    ? { ...rule, of: rule.of.map((part) => mapConditions(part, change)) }
    : change(rule)
}

/** Every condition of a rule, in reading order. */
export function conditionsOf(rule: Rule): Condition[] {
  return isGroup(rule) ? rule.of.flatMap(conditionsOf) : [rule]
}

export function isGroup(rule: Rule): rule is Group {
  return rule.kind === 'all' || rule.kind === 'any' || rule.kind === 'none'
}
