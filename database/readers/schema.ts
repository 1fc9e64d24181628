import type { Generated } from 'kysely'
import type { ReaderLanguage, ReaderWords } from '../../core/readers'

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
  /** What a mail to the address itself confirms. */
  own_requests: {
    id: Generated<number>
    person_id: number
    kind: OwnRequest
    /** Of the secret in the mailed link, by which it is found again. */
    hash: string
    /** Sealed; until it was mailed. */
    secret: string | null
    sent_to: string
    /** The address that is to be the person's; of the other kinds none. */
    address: string | null
    language: ReaderLanguage
    mailing_id: number | null
    asked_at: number
    until: number
    used_at: number | null
    /** When it is mailed, or tried again; null: it was, or was given up. */
    send_due: number | null
    tries: Generated<number>
    /** What the mail server said that did not take it. */
    answer: string | null
  }
  /** What the account says to readers in place of the words that ship. */
  reader_words: { language: ReaderLanguage; name: keyof ReaderWords; text: string }
}

export type OwnChange =
  'paused' | 'pause-ended' | 'one-a-week' | 'no-limit' | 'value' | 'address' | 'asked'

/** What takes more than a letter's link: to see everything known, to be erased, to have another address or the former one. */
export type OwnRequest = 'known' | 'erase' | 'address' | 'address-back'

/** The triggers that keep these tables, by name; the migrations have their text. */
export const readerTriggers = {
  own_changes_are_never_updated: 'own_changes: no row is ever updated',
} as const
