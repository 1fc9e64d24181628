/** Which rounds of a sequence are looked at; null: whichever. */
export interface Which {
  /** Began within so many days. */
  days: number | null
  /** By which version they came in. */
  version: number | null
  /** By which of that version's starts; without a version, of any; `hand`: by hand, or by another sequence. */
  start: number | 'hand' | null
  /** Of people who are in a segment now. */
  segmentId: number | null
  /** Of people whose mailbox is at a provider. */
  domain: string | null
  /** Of people who signed up by a form. */
  signUpId: number | null
  /** Of people whom something holds for now, asked in the words of segments: `Town is "Sandreach"`. */
  who: string | null
}
/** Characters. */
export const LONGEST_WHO = 500

export const everyRound: Which = {
  ...{ days: null, version: null, start: null, segmentId: null, domain: null },
  ...{ signUpId: null, who: null },
}

export const isEveryRound = (which: Which): boolean =>
  Object.values(which).every((one) => one === null)

/** Reads it from the words of a page's address, and whatever is none is whichever. */
export function readWhich(query: Readonly<Record<string, unknown>>): Which {
  const number = (value: unknown, least: number) => {
    const read = typeof value === 'string' && /^\d{1,9}$/.test(value) ? Number(value) : null
    return read !== null && read >= least ? read : null
  }
  const { since, version, start, segment, provider, signup, who } = query
  return {
    days: number(since, 1),
    version: number(version, 1),
    start: start === 'hand' ? 'hand' : number(start, 0),
    segmentId: number(segment, 1),
    domain: typeof provider === 'string' && /^[\w.-]{1,253}$/.test(provider) ? provider : null,
    signUpId: number(signup, 1),
    who: typeof who === 'string' && who.trim() ? who.trim().slice(0, LONGEST_WHO) : null,
  }
}

/** The same as words of an address; what is whichever stands in none. */
export function writeWhich({ days, version, start, segmentId, domain, signUpId, who }: Which) {
  const words = {
    ...{ since: days, version, start, segment: segmentId, provider: domain },
    ...{ signup: signUpId, who },
  }
  return Object.fromEntries(
    Object.entries(words).flatMap(([key, value]) => (value === null ? [] : [[key, String(value)]])),
  )
}
