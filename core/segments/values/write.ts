import { dateText } from '../../time'
import type { Comparison, NumberComparison, TimeComparison } from './comparison'
import { fold } from './fold'
import { isOnce, type Times } from './times'

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
export function writeNumber(test: NumberComparison, digits: number): string {
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

/** Nothing where once is enough, else " at least 2 times". */
export function writeTimes(times: Times): string {
  const { is, n } = times
  return isOnce(times) ? '' : ` ${is.replace('-', ' ')} ${n} ${n === 1 ? 'time' : 'times'}`
}

export function writeWithin(withinDays: number | null): string {
  return withinDays === null ? '' : ` in the last ${days(withinDays)}`
}

function days(n: number): string {
  return `${n} ${n === 1 ? 'day' : 'days'}`
}

export function quote(text: string): string {
  return `"${text.replace(/[\\"]/g, '\\$&')}"`
}

/** Something by its name, or by its number where another is called the same. */
export function named(id: number, names: ReadonlyMap<number, string>): string {
  const name = names.get(id)
  if (name === undefined) return `#${id}`
  return [...names.values()].filter((other) => fold(other) === fold(name)).length > 1
    ? `#${id}`
    : quote(name)
}
