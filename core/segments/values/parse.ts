import { isDay } from '../../time'
import {
  MOST_DAYS,
  type Comparison,
  type NumberComparison,
  type TimeComparison,
} from './comparison'
import { fold } from './fold'
import type { Times } from './times'
import type { TokenReader } from './token-reader'

export function parseComparison(r: TokenReader): Comparison {
  if (r.take('contains')) return { is: 'contains', text: r.text() }
  if (r.take('includes')) return { is: 'includes', text: r.text() }
  if (r.take('starts')) {
    r.expect('with')
    return { is: 'starts', text: r.text() }
  }
  if (r.take('ends')) {
    r.expect('with')
    return { is: 'ends', text: r.text() }
  }
  if (r.take('does')) {
    r.expect('not')
    r.expect('include')
    return { is: 'includes-not', text: r.text() }
  }
  if (r.take('has')) {
    r.expect('its')
    r.expect('anniversary')
    if (r.take('today')) return { is: 'anniversary', days: 0 }
    r.expect('within')
    return { is: 'anniversary', days: readDays(r, 366) }
  }
  r.expect('is')
  for (const is of ['empty', 'known', 'yes', 'no'] as const) if (r.take(is)) return { is }
  if (r.take('one')) {
    r.expect('of')
    const texts = [r.text()]
    while (r.take(',')) texts.push(r.text())
    return { is: 'one-of', texts }
  }
  if (r.token.kind === 'string') return { is: 'equal', text: r.string() }
  if (r.is('not') && r.follows.kind === 'string') {
    r.next++
    return { is: 'not-equal', text: r.string() }
  }
  if (['before', 'after', 'on', 'in', 'from'].some((word) => r.is(word))) return parseTime(r)
  if (r.is('between') && r.follows.kind === 'day') return parseTime(r)
  if (r.token.kind === 'number' || numberWords.some((word) => r.is(word))) return parseNumber(r, 0)
  if (r.is('not') && r.follows.kind === 'word') {
    r.next++
    if (r.take('empty')) return { is: 'known' }
    if (r.take('known')) return { is: 'empty' }
    return { is: 'not-equal', text: r.text() }
  }
  if (r.is('not')) return parseNumber(r, 0)
  return { is: 'equal', text: r.text() }
}

const numberWords = ['between', 'under', 'over', 'at', 'more', 'less', 'exactly']

export function parseNumber(r: TokenReader, digits: number): NumberComparison {
  const value = () => {
    const token = r.token
    if (token.kind !== 'number') throw r.fault('A number is needed here.')
    r.next++
    const number = Number(token.text.replaceAll(',', ''))
    return digits ? Math.round(number * 10 ** digits) : number
  }
  if (r.take('between')) {
    const from = value()
    r.expect('and')
    return { is: 'between', from, to: value() }
  }
  return { is: 'number', than: readThan(r), number: value() }
}

function readThan(r: TokenReader): Extract<NumberComparison, { is: 'number' }>['than'] {
  if (r.take('not')) return 'not-equal'
  if (r.take('under')) return 'under'
  if (r.take('over')) return 'over'
  if (r.take('exactly')) return 'equal'
  const more = r.take('more')
  if (more || r.take('less')) {
    r.expect('than')
    return more ? 'over' : 'under'
  }
  if (!r.take('at')) return 'equal'
  if (r.take('most')) return 'at-most'
  r.expect('least')
  return 'at-least'
}

export function parseTime(r: TokenReader): TimeComparison {
  if (r.take('in')) {
    r.expect('the')
    const is = r.take('next') ? 'next-days' : 'last-days'
    if (is === 'last-days') r.expect('last')
    return { is, days: readDays(r) }
  }
  for (const is of ['before', 'after', 'on'] as const)
    if (r.take(is)) return { is, day: readDay(r) }
  for (const [first, second] of [
    ['from', 'to'],
    ['between', 'and'],
  ] as const) {
    if (!r.take(first)) continue
    const from = readDay(r)
    r.expect(second)
    return { is: 'from-to', from, to: readDay(r) }
  }
  throw r.fault(
    'A time is needed here: in the last 30 days, before, after or on a day, from a day to a day.',
  )
}

function readDay(r: TokenReader): string {
  const { kind, text } = r.token
  if (kind !== 'day' || !isDay(text)) throw r.fault('A day is needed here, such as 23 Nov 2026.')
  r.next++
  return text
}

/** How many days longer spans of time are. */
const spans = { day: 1, week: 7, month: 30, year: 365 } as const

function readDays(r: TokenReader, most = MOST_DAYS): number {
  const at = r.next
  const alone = Object.keys(spans).some((word) => r.is(word))
  const n = alone ? 1 : r.count(1, most)
  for (const [word, days] of Object.entries(spans)) {
    if (!r.take(word) && !r.take(`${word}s`)) continue
    if (n * days > most) throw r.fault(`At most ${most} days can be asked for.`, at)
    return n * days
  }
  throw r.fault(`“days”, “weeks”, “months” or “years” is missing here.`)
}

/** How many times; at least once where nothing is said. `unit` "of": what they are a share of follows. */
export function parseTimes(r: TokenReader, unit: 'times' | 'of' = 'times'): Times {
  if (unit === 'times' && r.take('once')) return { is: 'exactly', n: 1 }
  if (unit === 'times' && r.take('twice')) return { is: 'exactly', n: 2 }
  const is = r.is('at')
    ? fold(r.follows.text) === 'most'
      ? 'at-most'
      : 'at-least'
    : r.is('exactly')
      ? 'exactly'
      : null
  if (is === null) return { is: 'at-least', n: 1 }
  if (is === 'exactly') r.next++
  else {
    r.next++
    r.expect(is === 'at-most' ? 'most' : 'least')
  }
  const n = r.count(0, 1_000_000)
  if (unit === 'times' && !r.take('times')) r.expect('time')
  return { is, n }
}

export function parseWithin(r: TokenReader): number | null {
  if (!r.is('in') || fold(r.follows.text) !== 'the') return null
  const when = parseTime(r)
  if (when.is !== 'last-days') throw r.fault('Only “in the last … days” is known here.')
  return when.days
}
