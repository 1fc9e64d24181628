import { isDay } from '../time'
import {
  MOST_DAYS,
  type Comparison,
  type NumberComparison,
  type TimeComparison,
} from './comparison'
import { fold } from './fold'
import type { Times } from './rule'
import type { TokenReader } from './token-reader'

export function readComparison(r: TokenReader): Comparison {
  if (r.take('contains')) return { is: 'contains', text: r.string() }
  if (r.take('includes')) return { is: 'includes', text: r.string() }
  if (r.take('starts')) {
    r.expect('with')
    return { is: 'starts', text: r.string() }
  }
  if (r.take('ends')) {
    r.expect('with')
    return { is: 'ends', text: r.string() }
  }
  if (r.take('does')) {
    r.expect('not')
    r.expect('include')
    return { is: 'includes-not', text: r.string() }
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
    const texts = [r.string()]
    while (r.take(',')) texts.push(r.string())
    return { is: 'one-of', texts }
  }
  if (r.token.kind === 'string') return { is: 'equal', text: r.string() }
  if (r.is('not') && r.follows.kind === 'string') {
    r.next++
    return { is: 'not-equal', text: r.string() }
  }
  if (['before', 'after', 'on', 'in'].some((word) => r.is(word))) return readTime(r)
  return readNumber(r, 0)
}

export function readNumber(r: TokenReader, digits: number): NumberComparison {
  const value = () => {
    const token = r.token
    if (token.kind !== 'number') throw r.fault('A number is needed here.')
    r.next++
    const number = Number(token.text)
    return digits ? Math.round(number * 10 ** digits) : number
  }
  if (r.take('between')) {
    const from = value()
    r.expect('and')
    return { is: 'between', from, to: value() }
  }
  const than = r.take('not')
    ? 'not-equal'
    : r.take('under')
      ? 'under'
      : r.take('over')
        ? 'over'
        : 'equal'
  return { is: 'number', than, number: value() }
}

export function readTime(r: TokenReader): TimeComparison {
  if (r.take('in')) {
    r.expect('the')
    const is = r.take('next') ? 'next-days' : 'last-days'
    if (is === 'last-days') r.expect('last')
    return { is, days: readDays(r) }
  }
  for (const is of ['before', 'after', 'on'] as const) {
    if (!r.take(is)) continue
    const { kind, text } = r.token
    if (kind !== 'day' || !isDay(text)) throw r.fault('A day is needed here, such as 23 Nov 2026.')
    r.next++
    return { is, day: text }
  }
  throw r.fault('A time is needed here: in the last 30 days, before, after or on a day.')
}

function readDays(r: TokenReader, most = MOST_DAYS): number {
  const days = r.count(1, most)
  if (!r.take('days')) r.expect('day')
  return days
}

export function readTimes(r: TokenReader): Times {
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
  if (!r.take('times')) r.expect('time')
  return { is, n }
}

export function readWithin(r: TokenReader): number | null {
  if (!r.is('in') || fold(r.follows.text) !== 'the') return null
  const when = readTime(r)
  if (when.is !== 'last-days') throw r.fault('Only “in the last … days” is known here.')
  return when.days
}
