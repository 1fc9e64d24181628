import type { Lift, VariantResult } from '../experiments'
import type { Interval } from '../results'
import type { Happening } from './happening'
import type { Judged } from './steps/split'

/** What came of a sequence, beside the figures of its map. Money is in minor units. */
export interface SequenceResults {
  /** Within so many days of coming in; of those only of whom they are over. */
  days: number
  /** What was counted as reached: an order or an event. */
  goal: Extract<Happening, { is: 'ordered' | 'did' }>
  led: { of: number; reached: Interval; money: number }
  /** Those by lot who get nothing; null where none are. */
  heldOut: { of: number; lift: Lift; money: Interval } | null
  /** One in so many people was asked. */
  oneIn: number
  splits: SplitResults[]
  left: { why: string; people: number }[]
  /** First opens by hour of the day, on the account's clock. */
  hours: number[]
}

export interface SplitResults {
  step: string
  judged: Judged
  /** By way: how many were looked at, and how they compare. */
  ways: ({ of: number } & VariantResult)[]
  leader: number
  clear: boolean
  /** What it has come to, by whom and when; null: as the map says. */
  shares: number[] | null
  by: string | null
  at: number | null
  since: number
}
