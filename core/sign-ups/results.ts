import { wilson, type Interval } from '../results/wilson'

/** How many did something, of how many who could have. */
export interface Share {
  of: number
  did: number
}

/** What came of a form, or of a part of those who saw it. */
export interface SignUpCounts {
  seen: number
  begun: number
  sentIn: number
  confirmed: number
  /** Of those who confirmed at least as long ago: how many of them are still on a list. */
  stayed30: Share
  stayed90: Share
  /** Of those who were sent three letters since: how many opened the third. */
  third: Share
  /** Of those who confirmed: how many ordered since. */
  ordered: Share
}

/** The shares of a form's results that have an interval, with what each is of, in words. */
export const signUpRates = {
  sentIn: { name: 'Sent in', of: 'who saw it' },
  confirmed: { name: 'Confirmed', of: 'who saw it' },
  stayed30: { name: 'Stayed 30 days', of: 'who confirmed that long ago' },
  stayed90: { name: 'Stayed 90 days', of: 'who confirmed that long ago' },
  third: { name: 'Opened the third letter', of: 'who were sent three since' },
  ordered: { name: 'Ordered', of: 'who confirmed' },
} as const
export type SignUpRate = keyof typeof signUpRates

/** A share with its interval (Wilson): sent in and confirmed are over seen. */
export function rateOf(counts: SignUpCounts, rate: SignUpRate): Share & { rate: Interval } {
  const share =
    rate === 'sentIn' || rate === 'confirmed'
      ? { of: counts.seen, did: counts[rate] }
      : counts[rate]
  return { ...share, rate: wilson(Math.min(share.did, share.of), share.of) }
}
