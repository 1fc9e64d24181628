import type { Generated } from 'kysely'
import type { RecipientState, TrialState } from '../core/delivery'
import type { DataEvery, LeaveReason } from '../core/results'

/** The tables of mailings: how they go out, to whom, and what those do. */
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
  contents: { hash: string; body: Buffer }
  mailing_contents: { mailing_id: number; no: number; hash: string }
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
  holdouts: { mailing_id: number; person_id: number; at: number }
  mailing_links: { mailing_id: number; no: number; url: string; block_id: string; words: string }
  recipients: {
    mailing_id: number
    person_id: number
    state: RecipientState
    at: number
    due: number
    attempts: Generated<number>
    first_attempt_at: number | null
    engine: string | null
    answer: string | null
    accepted_at: number | null
    opened_at: number | null
    clicked_at: number | null
    left_at: number | null
    machine_at: number | null
    scanner_at: number | null
    variant: number | null
    part: number | null
    /** Which of the letter's rules held when the message was made, as bits; null where it has none. */
    truth: number | null
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
  mailing_totals: { mailing_id: number } & Record<RecipientState | ActTotal, Generated<number>>
  /** By domain of the address; '' for those who were erased. Kept by triggers. */
  mailing_providers: { mailing_id: number; domain: string } & Record<
    | 'recipients'
    | 'delivered'
    | 'opened'
    | 'clicked'
    | 'left_list'
    | 'bounced'
    | 'complained'
    | 'deferred',
    number
  >
  /** Human clicks on each link and the people behind them. Kept by triggers, but for merging. */
  mailing_link_totals: { mailing_id: number; no: number; people: number; clicks: number }
  mailing_hours: { mailing_id: number; hour: number; opens: number; clicks: number }
  data_schedules: {
    id: Generated<number>
    /** JSON: what is taken out; see `DataChoice`. */
    choice: string
    every: DataEvery
    mail_to: string | null
    next_at: number
    created_at: number
  }
  data_outs: {
    id: Generated<number>
    key: string
    choice: string
    schedule_id: number | null
    mail_to: string | null
    job_id: number | null
    /** JSON: rows of each kind. */
    counts: string | null
    size: number | null
    created_at: number
    made_at: number | null
  }
  leave_reasons: {
    mailing_id: number
    person_id: number
    reason: LeaveReason
    words: Generated<string>
    at: number
  }
  agents: { id: Generated<number>; text: string }
  acts: {
    id: Generated<number>
    mailing_id: number
    person_id: number
    kind: 'open' | 'click'
    link: number | null
    at: number
    agent_id: number
    method: string
    /** Null until the engine has judged it. */
    verdict: 'human' | 'machine' | null
  }
}

export type MailingState = 'draft' | 'scheduled' | 'sending' | 'sent' | 'held'
export type ActTotal = 'opened' | 'clicked' | 'left_list' | 'machine_opened' | 'scanner_clicked'
