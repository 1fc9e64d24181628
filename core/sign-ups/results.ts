import { wilson, type Interval } from '../results/wilson'

/** What came of a form, or of one version of it. */
export interface SignUpCounts {
  seen: number
  sentIn: number
  confirmed: number
  /** Of those who confirmed at least as long ago: how many there are, and how many of them are still on a list. */
  after30: { of: number; stayed: number }
  after90: { of: number; stayed: number }
}

/** Its rates with their intervals: sent in and confirmed over seen, stayed over those who confirmed that long ago. */
export interface SignUpRates {
  sentIn: Interval
  confirmed: Interval
  stayed30: Interval
  stayed90: Interval
}

export function signUpRates({ seen, sentIn, confirmed, after30, after90 }: SignUpCounts) {
  return {
    sentIn: wilson(Math.min(sentIn, seen), seen),
    confirmed: wilson(Math.min(confirmed, seen), seen),
    stayed30: wilson(after30.stayed, after30.of),
    stayed90: wilson(after90.stayed, after90.of),
  } satisfies SignUpRates
}
