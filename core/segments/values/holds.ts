import type { Comparison, Family, NumberComparison } from './comparison'
import { fold } from './fold'
import { anniversariesWithin, daysOf, type Asked, type MomentRange } from './moments'

/** A question about one value; what is not of the family counts as missing. */
export function valueTest(
  family: Family,
  test: Comparison,
  asked: Asked,
): (value: unknown) => boolean {
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

export function numberIs(value: number | null, test: NumberComparison): boolean {
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

/** A moment in a range; one that never was is in none. */
export function isIn(at: number | null, { from, to }: MomentRange): boolean {
  return at !== null && (from === undefined || at >= from) && (to === undefined || at < to)
}
