import type { Generated } from 'kysely'

/** The tables of sequences: their maps, and who is inside. */
export interface SequenceTables {
  sequences: {
    id: Generated<number>
    name: string
    state: Generated<SequenceState>
    list_id: number | null
    /** JSON: the map as it is being drawn; see `SequenceMap`. */
    map: string
    revision: Generated<number>
    /** The version people enter by; 0 before it has ever run. */
    version: Generated<number>
    created_at: number
    started_at: number | null
    /** Up to where evidence and events were read for who comes in: ids. */
    evidence_read: Generated<number>
    events_read: Generated<number>
  }
  sequence_versions: { sequence_id: number; version: number; map: string; at: number }
  /** How many went by each way out of each step. */
  sequence_traffic: {
    sequence_id: number
    version: number
    step: string
    way: number
    people: number
  }
  enrolments: {
    sequence_id: number
    person_id: number
    version: number
    state: Generated<'inside' | 'finished' | 'left'>
    why: string | null
    step: string
    due: number
    visit: Generated<number>
    entered_at: number
    ended_at: number | null
  }
}

export type SequenceState = 'draft' | 'running' | 'paused' | 'ended'
