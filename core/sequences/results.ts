import type { Lift, VariantResult } from '../experiments'
import type { Interval } from '../results'
import type { Happening } from './happening'
import type { SequenceMap } from './map'
import type { Which } from './which'
import type { Judged } from './steps/by-lot'

/** What came of a sequence, beside the figures of its map. Money is in minor units. */
export interface SequenceResults {
  /** Of which rounds all of it is. */
  which: Which
  /** The figures of the map of some rounds, and the map; null: of all, which stand in sums. */
  figures: (MapFigures & { map: SequenceMap }) | null
  /** Within so many days of coming in, as asked. */
  days: number
  /** Of each goal, in the order of the map; of a map without one, of orders. */
  goals: GoalResults[]
  /** One in so many people was asked. */
  oneIn: number
  splits: SplitResults[]
  left: { why: string; people: number }[]
  /** By mailing: how many wrote back; null: not measured, since replies go past us. */
  replied: Record<number, number | null>
  /** First opens by hour of the day, on the account's clock. */
  hours: number[]
}

/** What came of one goal. */
export interface GoalResults {
  /** Its step; null: there is none, and orders are counted. */
  step: string | null
  when: Happening
  /** Within so many days of coming in, or fewer, as the goal says; of those only of whom they are over. */
  days: number
  led: { of: number; reached: Interval; money: number }
  /** Those by lot who get nothing; null where none are, or where only who is led through it can reach it. */
  heldOut: { of: number; lift: Lift; money: Interval } | null
  /** Whether those held out could reach it as well. */
  isForAll: boolean
}

/** Who is inside a sequence and gets other mail within a day of one of its own, as things stand. */
export interface CloseMail {
  people: number
  /** By what else they get ("sequence 3", "mailing 4"): its name, and how many of them; most first. */
  others: { of: string; name: string; people: number }[]
  /** The first of them: when each gets the mail of the sequence, and when which other. */
  some: { id: number; name: string; at: number; otherAt: number; of: string }[]
}

/** What is counted of a map. */
export interface MapFigures {
  counts: { inside: number; finished: number; left: number; heldOut: number }
  /** By step: how many stand there. */
  standing: Record<string, number>
  /** By step: how many went by each of its ways. */
  traffic: Record<string, number[]>
  mailings: { id: number; accepted: number; complained: number; opened: number; clicked: number }[]
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
