import { showFieldValue, type FieldValue } from '../people/fields'
import { engagement, tierOf } from '../standing'
import type { Asked } from './moments'
import type { PersonFacts } from './person-facts'
import { readyRule, type Catalog, type ReadyRule } from './ready'
import { asksWhoWasSent, isGroup, type Rule } from './rule'
import { eventCount, mailCount, momentOf, ordersValue, ruleToPredicate } from './to-predicate'
import { mailVerbs, writeCondition } from './write'

/** Why a person is in or not: each part of a rule with its verdict and, for a condition, the fact behind it. */
export interface Explanation {
  /** The condition in words; null for a group. */
  words: string | null
  group: 'all' | 'any' | 'none' | null
  holds: boolean
  /** What is on file, in words; for a reference that is not there, what is wrong. */
  fact: string | null
  parts: Explanation[]
}

/**
 * Explains a rule for one person. `day` writes a moment as people read it. Verdicts are those of
 * `ruleToPredicate`; where the rule as a whole can't be asked, nothing holds at its root.
 */
export function explainRule(
  rule: Rule,
  person: PersonFacts,
  catalog: Catalog,
  asked: Asked,
  day: (at: number) => string,
): Explanation {
  const broken = readyRule(rule, catalog).rule === null
  const explanation = explain(rule)
  return broken ? { ...explanation, holds: false } : explanation

  function explain(part: Rule): Explanation {
    const ready = readyRule(part, catalog)
    if (isGroup(part)) {
      const parts = part.of.map(explain)
      const holds =
        part.kind === 'all'
          ? parts.every((one) => one.holds)
          : part.kind === 'any'
            ? parts.some((one) => one.holds)
            : !parts.some((one) => one.holds)
      return { words: null, group: part.kind, holds, fact: null, parts }
    }
    const words = writeCondition(part, catalog)
    if (ready.rule === null)
      return { words, group: null, holds: false, fact: ready.problems[0]!.message, parts: [] }
    const holds = ruleToPredicate(ready.rule, asked)(person)
    const segment = part.kind === 'segment' ? catalog.segments.get(part.segmentId)! : null
    return {
      words,
      group: null,
      holds,
      fact: factOf(ready.rule, person, catalog, asked, day),
      parts: segment && !segment.frozen ? [explain(segment.rule)] : [],
    }
  }
}

function factOf(
  rule: ReadyRule,
  person: PersonFacts,
  catalog: Catalog,
  asked: Asked,
  day: (at: number) => string,
): string | null {
  switch (rule.kind) {
    case 'field': {
      const shown = showFieldValue(person.values[rule.key] as FieldValue | null | undefined)
      return shown === '' ? 'nothing on file' : shown
    }
    case 'joined':
      return `joined ${day(person.joinedAt)}`
    case 'tagged': {
      const tags = [...person.tags].map((id) => catalog.tags.get(id)).filter(Boolean)
      return tags.length ? `tagged ${tags.join(', ')}` : 'no tags'
    }
    case 'on-list': {
      const found = person.subscriptions.get(rule.listId)
      return found
        ? `${found.state} since ${day(found.since)}${found.way ? `, by ${found.way}` : ''}`
        : 'never on this list'
    }
    case 'address':
      return rule.part === 'whole' ? person.normal : person.domain
    case 'mail': {
      const count = mailCount(rule, asked)(person)
      if (asksWhoWasSent(rule) && mailCount({ ...rule, did: 'sent' }, asked)(person) === 0)
        return 'was sent none of them'
      const last = Math.max(...person.mail.map((one) => momentOf[rule.did](one) ?? -Infinity))
      const ever = Number.isFinite(last)
        ? `; last ${mailVerbs[rule.did].replace('was ', '')} ${day(last)}`
        : ''
      return `${count} ${count === 1 ? 'mailing' : 'mailings'}${ever}`
    }
    case 'orders': {
      const value = ordersValue(rule, asked)(person)
      return rule.what === 'count'
        ? `${value} ${value === 1 ? 'order' : 'orders'}`
        : (value / 10 ** catalog.moneyDigits).toFixed(catalog.moneyDigits)
    }
    case 'ordered': {
      const times = person.orders.map(({ at }) => at)
      if (times.length === 0) return 'never ordered'
      return rule.which === 'first'
        ? `first on ${day(Math.min(...times))}`
        : `last on ${day(Math.max(...times))}`
    }
    case 'event': {
      const count = eventCount(rule, asked)(person)
      return count === 1 ? 'once' : `${count} times`
    }
    case 'sequence': {
      const been = person.sequences.get(rule.sequenceId)
      if (!been) return 'never in it'
      return been.state === 'inside'
        ? `inside since ${day(been.enteredAt)}`
        : `${been.state === 'finished' ? 'finished' : 'left'} ${day(been.endedAt ?? been.enteredAt)}`
    }
    case 'tier':
      return `${tierOf(person.keenness, asked.now)}, engagement ${engagement(person.keenness, asked.now).toFixed(2)}`
    case 'frozen':
      return person.frozen.has(rule.segmentId) ? 'put in when it was frozen' : 'not in it then'
    default:
      return null
  }
}
