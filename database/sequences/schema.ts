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
    /** Sealed: signs what it hands over; null before it is asked for. */
    hook_key: string | null
    /** When it went on after a pause; and over how long those who waited go on, ms. See `Resuming`. */
    resumed_at: Generated<number>
    spread: Generated<number>
    /** When it was put away, so that it is not listed with the others; only where it does not run. */
    archived_at: number | null
  }
  /** Sequences kept as templates. */
  kept_sequences: {
    id: Generated<number>
    name: string
    about: string
    /** JSON: see `sequenceFile`. */
    file: string
    created_at: number
    by_name: string
    deleted_at: number | null
  }
  /** Who was handed over to another program: one for each act, each time somebody came by its step. */
  hand_overs: {
    id: Generated<number>
    sequence_id: number
    person_id: number
    round: number
    step: string
    visit: number
    /** Which of the step's acts. */
    act: number
    url: string
    body: string
    at: number
    /** When it is tried next; null: it was answered, or given up. */
    due: number | null
    tries: Generated<number>
    tried_at: number | null
    /** 1: taken, 0: refused or given up; null: not yet known. */
    taken: number | null
    /** What came of the last try, in words. */
    said: string | null
    /** JSON: the object that was answered. */
    answer: Generated<string>
  }
  /** What the team is to be told by mail; gone once it is. */
  team_tellings: {
    id: Generated<number>
    sequence_id: number
    person_id: number
    recipient: string
    text: string
    at: number
    due: number
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
  /** What people newly got, lost, were sent, opened or clicked, for the sequences that begin by it. */
  cues: {
    id: Generated<number>
    person_id: number
    what: string
    key: string
    value: string | null
    at: number | null
  }
  /** What of it is noted: what running sequences begin by. */
  cue_watches: { what: string; key: string }
  cues_hushed: { hushed: number }
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
  /** What judged splits and mails with versions have come to: see `splits.ts`. */
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
  cue_tagged: 'a tag that somebody got is noted where a sequence begins by it',
  cue_untagged: 'the same of one that they lost',
  cue_field: 'the same of a field that changed',
  cue_field_new: 'the same of the fields of somebody new',
  cue_sent: 'the same of a mailing that they were sent',
  cue_opened: 'the same of one that they opened',
  cue_clicked: 'the same of one in which they clicked',
  standing_came: 'a round that begins is counted where it stands',
  standing_moved: 'a round that goes on is counted where it stands now',
  standing_gone: 'a round that is gone is not counted',
} as const
