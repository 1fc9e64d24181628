import type { Generated } from 'kysely'
import type { RecipientState } from '../../core/delivery'

/** The tables of what goes out, to whom, and what those do with it. */
export interface SendingTables {
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

export type ActTotal = 'opened' | 'clicked' | 'left_list' | 'machine_opened' | 'scanner_clicked'
