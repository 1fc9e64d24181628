import type { Generated } from 'kysely'

/** The tables of segments, and how they were. */
export interface SegmentTables {
  segments: {
    id: Generated<number>
    name: string
    rule: string
    created_at: number
    updated_at: number
    /** Counts up with each change, so that two who edit at once don't lose anything. */
    version: Generated<number>
    /** When its members were fixed; null for a segment that is computed. */
    deleted_at: number | null
    /** The query in SQL by which its people were found. */
    query: string | null
    frozen_at: number | null
  }
  frozen_people: { segment_id: number; person_id: number }
  segment_days: {
    segment_id: number
    day: string
    at: number
    size: number
    came: number
    went: number
    /** The version of the segment whose rule it was. */
    version: number
  }
  segment_people: { segment_id: number; person_id: number }
  segment_moves: {
    segment_id: number
    day: string
    person_id: number
    came: number
    why: string | null
  }
}
