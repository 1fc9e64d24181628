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
  }
  /** Up to where each of its starts was read: the id of the last row, or of dates the time. */
  sequence_marks: { sequence_id: number; start: number; upto: number }
  /** Up to where events and orders were read for whoever waits for some. */
  woken_up_to: { record: 'events' | 'orders'; upto: number }
  /** Who is to come in, until the engine has let them in; `start` null: by hand. */
  sequence_arrivals: {
    id: Generated<number>
    sequence_id: number
    start: number | null
    person_id: number
    at: number
  }
  /** How many rounds stand where: see {@link sequenceTriggers}. */
  sequence_standing: {
    sequence_id: number
    version: number
    state: 'inside' | 'finished' | 'left'
    /** The step of those inside; the reason of those who came out, empty where there is none. */
    place: string
    people: number
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
  /** Each step that somebody went by, by which of its ways. */
  sequence_trail: {
    sequence_id: number
    person_id: number
    round: number
    visit: number
    step: string
    way: number
    at: number
  }
  /** What judged splits have come to: see `splits.ts`. */
  split_shares: {
    sequence_id: number
    step: string
    since: number
    shares: string | null
    by_name: string | null
    at: number | null
    looked_at: number | null
  }
  enrolments: {
    sequence_id: number
    person_id: number
    /** Each time somebody comes in is a round, counted from 0. */
    round: Generated<number>
    version: number
    /** By which of the version's starts they came in; null: by hand, or by another sequence. */
    start: number | null
    /** The event or order that started it: its id. */
    started_by: number | null
    state: Generated<'inside' | 'finished' | 'left'>
    why: string | null
    step: string
    due: number
    visit: Generated<number>
    /** When they came to the step. */
    arrived_at: Generated<number>
    /** 1: they go on there by what they do. See `waking.ts`. */
    wakes: Generated<0 | 1>
    entered_at: number
    ended_at: number | null
  }
}

export type SequenceState = 'draft' | 'running' | 'paused' | 'ended'

/** What keeps these tables by itself. */
export const sequenceTriggers = {
  standing_came: 'a round that begins is counted where it stands',
  standing_moved: 'a round that goes on is counted where it stands now',
  standing_gone: 'a round that is gone is not counted',
} as const
