import { dateText } from '../time'
import type { Comparison, NumberComparison, TimeComparison } from './comparison'
import { fold } from './fold'
import type { Catalog } from './ready'
import { isGroup, type Condition, type MailAct, type Rule, type Times } from './rule'
import { tidyRule } from './tidy'

/**
 * A rule as one line that reads as English; `parseRule` reads it back to the same (tidied) rule.
 * @example 'on list "Offers" and Flying style includes "stunt" and (opened any mailing in the last 90 days or joined in the last 30 days)'
 */
export function writeRule(rule: Rule, catalog: Catalog): string {
  return write(tidyRule(rule), catalog, 'root')
}

function write(rule: Rule, catalog: Catalog, within: 'root' | Rule['kind']): string {
  if (!isGroup(rule)) return writeCondition(rule, catalog)
  if (rule.of.length === 0) return rule.kind === 'any' ? 'nobody' : 'everyone'
  const parts = rule.of.map((part) => write(part, catalog, rule.kind))
  if (rule.kind === 'none' && parts.length === 1) return `not ${parts[0]}`
  const text =
    rule.kind === 'none'
      ? `neither ${parts.join(' nor ')}`
      : parts.join(rule.kind === 'all' ? ' and ' : ' or ')
  return within === 'root' ? text : `(${text})`
}

/** One condition as a phrase. */
export function writeCondition(of: Condition, catalog: Catalog): string {
  switch (of.kind) {
    case 'field':
      return `${fieldName(of.key, catalog)} ${writeComparison(of.test)}`
    case 'joined':
      return `joined ${writeTime(of.when)}`
    case 'tagged':
      return `tagged ${named(of.tagId, catalog.tags)}`
    case 'on-list': {
      const list = `list ${named(of.listId, catalog.lists)}`
      const since = of.since ? ` ${writeTime(of.since)}` : ''
      const way = of.way ? ` by ${quote(of.way)}` : ''
      const verb = {
        pending: 'pending on',
        subscribed: since ? 'joined' : 'on',
        unsubscribed: 'unsubscribed from',
      }
      return `${verb[of.state]} ${list}${since}${way}`
    }
    case 'address':
      return `${of.part === 'whole' ? 'address' : 'domain'} ${writeComparison(of.test)}`
    case 'mail': {
      const { of: which } = of
      const lately = writeWithin(of.withinDays)
      const unsent = of.orUnsent ? ' or was sent none' : ''
      if (which.which === 'last')
        return `${mailVerbs[of.did]} ${writeOfLast(of.times, which.n)}${lately}${unsent}`
      const mailing =
        which.which === 'any'
          ? 'any mailing'
          : which.which === 'sequence'
            ? `any mailing of sequence ${named(which.id, catalog.sequences)}`
            : `${which.link === null ? '' : `link ${which.link} of `}mailing ${named(which.id, catalog.mailings)}`
      return `${mailVerbs[of.did]} ${mailing}${writeTimes(of.times)}${lately}${unsent}`
    }
    case 'orders': {
      const digits = of.what === 'money' ? catalog.moneyDigits : 0
      const times = of.what === 'count' ? ' times' : ''
      const product = of.product === null ? '' : ` on product ${quote(of.product)}`
      const category = of.category === null ? '' : ` in category ${quote(of.category)}`
      return `${of.what === 'count' ? 'bought' : 'spent'} ${writeNumber(of.test, digits)}${times}${product}${category}${writeWithin(of.withinDays)}`
    }
    case 'ordered':
      return `${of.which} bought ${writeTime(of.when)}`
    case 'event': {
      const where = of.where
        ? ` where ${quote(of.where.property)} ${writeComparison(of.where.test)}`
        : ''
      return `did ${quote(of.name)}${writeTimes(of.times)}${writeWithin(of.withinDays)}${where}`
    }
    case 'segment':
      return `in segment ${named(of.segmentId, new Map([...catalog.segments].map(([id, { name }]) => [id, name])))}`
    case 'sequence': {
      const verb = { inside: 'inside', finished: 'finished', never: 'never in' }[of.is]
      return `${verb} sequence ${named(of.sequenceId, catalog.sequences)}`
    }
    case 'tier':
      return `tier is ${of.of.join(', ')}`
  }
}

export const mailVerbs: Record<MailAct, string> = {
  sent: 'was sent',
  delivered: 'received',
  opened: 'opened',
  clicked: 'clicked',
  bounced: 'bounced on',
  complained: 'complained about',
  left: 'unsubscribed by',
}

/** Words with which a condition begins, so that no field of such a name is taken for one. */
export const firstWords = new Set(
  'everyone nobody not neither all any none joined tagged on pending left unsubscribed address domain was received opened clicked bounced complained bought spent first last did in inside finished never tier field'.split(
    ' ',
  ),
)

function fieldName(key: string, catalog: Catalog): string {
  const name = catalog.fields.get(key)?.name
  const same = (other: { name: string }) => fold(other.name) === fold(name ?? '')
  if (name === undefined || [...catalog.fields.values()].filter(same).length > 1)
    return `field #${key}`
  const words = name.split(' ')
  const bare = words.every((word) => /^\p{L}[\p{L}\p{N}_]*$/u.test(word) && !verbs.has(fold(word)))
  return bare && !firstWords.has(fold(words[0]!)) ? name : quote(name)
}

const verbs = new Set('is contains starts ends includes does has and or nor'.split(' '))

function named(id: number, names: ReadonlyMap<number, string>): string {
  const name = names.get(id)
  if (name === undefined) return `#${id}`
  return [...names.values()].filter((other) => fold(other) === fold(name)).length > 1
    ? `#${id}`
    : quote(name)
}

export function writeComparison(test: Comparison): string {
  switch (test.is) {
    case 'empty':
    case 'known':
    case 'yes':
    case 'no':
      return `is ${test.is}`
    case 'equal':
      return `is ${quote(test.text)}`
    case 'not-equal':
      return `is not ${quote(test.text)}`
    case 'contains':
      return `contains ${quote(test.text)}`
    case 'starts':
      return `starts with ${quote(test.text)}`
    case 'ends':
      return `ends with ${quote(test.text)}`
    case 'one-of':
      return `is one of ${test.texts.map(quote).join(', ')}`
    case 'includes':
      return `includes ${quote(test.text)}`
    case 'includes-not':
      return `does not include ${quote(test.text)}`
    case 'number':
    case 'between':
      return `is ${writeNumber(test, 0)}`
    case 'anniversary':
      return test.days === 0
        ? 'has its anniversary today'
        : `has its anniversary within ${days(test.days)}`
    default:
      return `is ${writeTime(test)}`
  }
}

/** `digits`: how many digits of the number stand after the point (money is kept in minor units). */
function writeNumber(test: NumberComparison, digits: number): string {
  const show = (n: number) =>
    digits ? (n / 10 ** digits).toFixed(digits).replace(/\.0+$/, '') : String(n)
  if (test.is === 'between') return `between ${show(test.from)} and ${show(test.to)}`
  const than = {
    equal: '',
    'not-equal': 'not ',
    under: 'under ',
    over: 'over ',
    'at-least': 'at least ',
    'at-most': 'at most ',
  }[test.than]
  return `${than}${show(test.number)}`
}

export function writeTime(when: TimeComparison): string {
  switch (when.is) {
    case 'last-days':
      return `in the last ${days(when.days)}`
    case 'next-days':
      return `in the next ${days(when.days)}`
    case 'from-to':
      return `from ${dateText(when.from)} to ${dateText(when.to)}`
    case 'before':
    case 'after':
    case 'on':
      return `${when.is} ${dateText(when.day)}`
  }
}

/** How many of the last mailings: "at least 2 of the last 5 mailings", "all of …", "none of …". */
function writeOfLast({ is, n }: Times, of: number): string {
  const mailings = of === 1 ? 'the last mailing' : `the last ${of} mailings`
  if (is === 'at-least' && n === of) return `all of ${mailings}`
  if (is === 'at-most' && n === 0) return `none of ${mailings}`
  return `${is.replace('-', ' ')} ${n} of ${mailings}`
}

function writeTimes({ is, n }: Times): string {
  return is === 'at-least' && n === 1
    ? ''
    : ` ${is.replace('-', ' ')} ${n} ${n === 1 ? 'time' : 'times'}`
}

function writeWithin(withinDays: number | null): string {
  return withinDays === null ? '' : ` in the last ${days(withinDays)}`
}

function days(n: number): string {
  return `${n} ${n === 1 ? 'day' : 'days'}`
}

function quote(text: string): string {
  return `"${text.replace(/[\\"]/g, '\\$&')}"`
}
