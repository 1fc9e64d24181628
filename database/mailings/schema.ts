import type { Generated } from 'kysely'
import type { TrialState } from '../../core/delivery'

/** The tables of mailings: how they go out. */
export interface MailingTables {
  mailings: {
    id: Generated<number>
    name: string
    state: MailingState
    list_id: number | null
    rule: string | null
    /** JSON: whose members are not mailed. */
    left_out: string | null
    /** 1: it goes also to those whom the frequency cap would spare. */
    past_cap: Generated<number>
    letter_id: number
    /** The sequence whose mailing it is; null for one that goes out by itself. */
    sequence_id: number | null
    scheduled_at: number | null
    started_at: number | null
    finished_at: number | null
    /** By whom: somebody, the proof, a limit that a tier passed, or a fault in making its messages. */
    held_by: 'hand' | 'proof' | 'line' | 'fault' | null
    held_note: string | null
    /** Why nothing goes out just now though it should: the mail server does not answer. */
    waiting_note: string | null
    created_at: number
    /** JSON: how it goes out; see `DispatchPlan`. */
    plan: Generated<string>
    /** The variant that the rest gets, since when and by whom it was decided. */
    winner: number | null
    decided_at: number | null
    decided_by: string | null
    /** JSON: the figures it was decided on, see `DecidedOn`; null where they were not kept. */
    decided_on: string | null
    /** JSON: blockers that the owner lets pass, with the reason; see `Overruling`. */
    overruled: string | null
    /** Until then it can be called back with nothing gone out, by the host's clock. */
    callback_until: number | null
    /** The wished day and time as on a wall: in the account's zone, or on each reader's clock. */
    wish: string | null
    /** At what of it an engine died: `letter`, or the number of the person whose message was being made. */
    died_at: string | null
    /** JSON: what had come of it when somebody let it go on after a limit; see `PartCounts`. */
    watched_from: string | null
  }
  mailing_pauses: { mailing_id: number; from_at: number; to_at: number | null }
  mailing_parts: {
    mailing_id: number
    no: number
    kind: string
    /** 1: somebody has looked at the line that held it, and lets it go on. */
    released: Generated<number>
    begun_at: number | null
  }
  mailing_variants: {
    mailing_id: number
    no: number
    letter_id: number
    sender_name: string
    hour: number | null
  }
  /** `part`: the part they would have got it with, at `at`; null while that has not begun. */
  holdouts: { mailing_id: number; person_id: number; at: number; part: number | null }
  approvals: {
    id: Generated<number>
    letter_id: number
    version: number
    asked_at: number
    asked_by: string
    of_id: number
    note: string
    answered_at: number | null
    verdict: 'approved' | 'not yet' | null
    words: string | null
    /** JSON: what was approved, see `GoesOut`; null where that was not kept. */
    of: string | null
  }
  trial_mailboxes: {
    id: Generated<number>
    address: string
    host: string
    port: number
    secure: 0 | 1
    login: string
    password: string
    created_at: number
    removed_at: number | null
  }
  trials: {
    mailing_id: number
    mailbox_id: number
    version: number
    /** JSON: the letter and its headers; null once it has gone out. */
    letter: string | null
    state: TrialState
    asked_at: number
    message_id: string | null
    sent_host: number | null
    next_look_host: number | null
    found_host: number | null
    folder: string | null
    spf: string | null
    dkim: string | null
    dmarc: string | null
    words: string | null
  }
  goal_starts: { mailing_id: number; person_id: number }
  goal_hits: { mailing_id: number; person_id: number; at: number }
}

export type MailingState = 'draft' | 'scheduled' | 'sending' | 'sent' | 'held'
