import type { Generated } from 'kysely'
import type { Failure, RecipientState } from '../../core/delivery'

/** The tables of what goes out, to whom, and what those do with it. */
export interface SendingTables {
  recipients: {
    mailing_id: number
    person_id: number
    /** Which of the person's rounds in the mailing's sequence it belongs to; 0 of a mailing that goes out by itself. */
    round: Generated<number>
    state: RecipientState
    at: number
    due: number
    attempts: Generated<number>
    first_attempt_at: number | null
    engine: string | null
    answer: string | null
    accepted_at: number | null
    opened_at: number | null
    /** The agent of the act by which they opened it first. */
    opened_on: number | null
    clicked_at: number | null
    left_at: number | null
    replied_at: number | null
    /** Why it did not arrive; null where it did, or may still. */
    failure: Failure | null
    machine_at: number | null
    scanner_at: number | null
    variant: number | null
    part: number | null
    /** Which of the letter's rules held when the message was made, as bits; null where it has none. */
    truth: number | null
  }
  mailing_totals: { mailing_id: number } & Record<RecipientState | ActTotal, Generated<number>>
  contents: { hash: string; body: Buffer }
  mailing_contents: { mailing_id: number; no: number; hash: string }
  mailing_links: { mailing_id: number; no: number; url: string; block_id: string; words: string }
  reports: {
    id: Generated<number>
    raw: string
    at: number
    read: Generated<number>
    outcome: string | null
    /** Whom it is about, where that can be told. */
    person_id: number | null
  }
  replies: {
    id: Generated<number>
    mailing_id: number
    person_id: number
    round: Generated<number>
    at: number
    from_name: string
    from_address: string
    subject: string
    text: string
    /** The message as it came, as long as that is kept. */
    report_id: number | null
    /** When it is to be passed on to the sender's address; null: it was, or never will be. */
    pass_on_due: number | null
    pass_on_tries: Generated<number>
    passed_on_at: number | null
    pass_on_note: string | null
  }
  agents: { id: Generated<number>; text: string }
  acts: {
    id: Generated<number>
    mailing_id: number
    person_id: number
    round: Generated<number>
    kind: 'open' | 'click'
    link: number | null
    at: number
    agent_id: number
    method: string
    /** Null until the engine has judged it. */
    verdict: 'human' | 'machine' | null
  }
}

export type ActTotal = 'opened' | 'clicked' | 'left_list' | 'machine_opened' | 'scanner_clicked'
