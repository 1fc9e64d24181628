import type { Generated } from 'kysely'

/** The tables of what readers ask for and change by themselves. */
export interface ReaderTables {
  /** What they asked for about how much mail they get; a row from the first time on. */
  own_limits: {
    person_id: number
    paused_at: number | null
    /** No mailings before; it stays when it is over. */
    paused_until: number | null
    one_in_days: number | null
  }
  /** What they changed on their own page, with what they pressed; never updated. */
  own_changes: {
    id: Generated<number>
    person_id: number
    at: number
    what: OwnChange
    /** What came of it, in words: "until 1 June 2026", "Town: Sandreach". */
    detail: string
    wording_id: number
    /** The mailing by whose link they came; null: by none. */
    mailing_id: number | null
    ip: string | null
    agent: string | null
  }
}

export type OwnChange = 'paused' | 'pause-ended' | 'one-a-week' | 'no-limit' | 'value'

/** The triggers that keep these tables, by name; the migrations have their text. */
export const readerTriggers = {
  own_changes_are_never_updated: 'own_changes: no row is ever updated',
} as const
