import type { FieldValue } from '../people'
import type { PulseBar } from '../counting'

/** A rule while it is edited: each line's count, some of its people, what it shares with saved segments. */
export interface SegmentAnswer {
  everyone: number
  total: number
  /** By the line's path. */
  lines: Record<string, number>
  /** How long counting took. */
  ms: number
  people: {
    id: number
    address: string
    name: string
    values: Record<string, FieldValue>
    orders: number
    /** Minor units. */
    spent: number
    pulse: PulseBar[]
  }[]
  shared: { id: number; name: string; n: number }[]
}
