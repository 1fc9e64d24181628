import { liftOf, type Lift } from '../experiments'
import { wilson, type Interval } from '../results/wilson'

/** What a published version asks besides the address, and what it came to. */
export interface AskedVersion {
  signUpId: number
  fields: readonly string[]
  seen: number
  confirmed: number
}

/** From so many things on they are told together. */
const MANY = 3

export interface ByAsked {
  /** How many things are asked besides the address; {@link MANY}: so many or more. */
  asked: number
  seen: number
  confirmed: number
  rate: Interval
}

/** How many confirmed, of those who saw a form, by how many things it asked: over all forms of an account. */
export function byNumberAsked(versions: readonly AskedVersion[]): ByAsked[] {
  return Array.from({ length: MANY + 1 }, (_, asked) => {
    const of = summed(versions.filter(({ fields }) => Math.min(fields.length, MANY) === asked))
    return { asked, ...of, rate: wilson(of.hits, of.seen) }
  }).flatMap(({ hits: _, ...one }) => (one.seen > 0 ? [one] : []))
}

/** What asking for something cost a form: versions of it that ask for it against those that do not. */
export interface FieldCost {
  field: string
  seen: number
  seenWithout: number
  /** How much less confirm where it is asked, with its 95% interval; more where it is below zero. */
  cost: Pick<Lift, 'difference' | 'low' | 'high'>
}

export function costsOf(versions: readonly AskedVersion[], signUpId: number): FieldCost[] {
  const own = versions.filter((one) => one.signUpId === signUpId)
  const fields = [...new Set(own.flatMap((one) => one.fields))]
  return fields.flatMap((field) => {
    const asks = summed(own.filter((one) => one.fields.includes(field)))
    const without = summed(own.filter((one) => !one.fields.includes(field)))
    if (asks.seen === 0 || without.seen === 0) return []
    const { difference, low, high } = liftOf(
      { hits: without.hits, of: without.seen },
      { hits: asks.hits, of: asks.seen },
    )
    return [{ field, seen: asks.seen, seenWithout: without.seen, cost: { difference, low, high } }]
  })
}

function summed(versions: readonly AskedVersion[]) {
  const seen = versions.reduce((sum, one) => sum + one.seen, 0)
  const confirmed = versions.reduce((sum, one) => sum + one.confirmed, 0)
  return { seen, confirmed, hits: Math.min(confirmed, seen) }
}
