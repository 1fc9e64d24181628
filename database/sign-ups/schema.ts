import type { Generated } from 'kysely'
import type { Doubt, SendingState } from '../../core/sign-ups'
import type { Device } from '../../core/counting'
import type { ReaderLanguage } from '../../core/readers'

/** The tables of sign-ups: forms, what was sent in by them, and who saw them. */
export interface SignUpTables {
  sign_ups: {
    id: Generated<number>
    /** In its public address. */
    key: string
    name: string
    state: Generated<SignUpState>
    /** JSON: the form as it is being drawn; see `SignUpForm`. */
    form: string
    revision: Generated<number>
    /** What is published now; null before it ever was. */
    live_version: number | null
    /** Sealed: signs what goes to its webhook; null before there was one. */
    hook_key: string | null
    created_at: number
    deleted_at: number | null
  }
  /** What was published: what somebody saw who agreed to something. Never updated. */
  sign_up_versions: {
    sign_up_id: number
    version: number
    form: string
    at: number
    by_name: string | null
  }
  sign_up_sendings: {
    id: Generated<number>
    sign_up_id: number
    version: number
    language: ReaderLanguage
    at: number
    /** Empty once it is forgotten whose it was. */
    address: string
    normal: string
    /** JSON: values by the key of a field; and the ids of the boxes that were ticked. */
    given: string
    ticked: string
    /** The page it stood on, and what that page's address said (JSON). */
    page: string | null
    source: Generated<string>
    device: Device
    ip: string | null
    agent: string | null
    state: SendingState
    doubt: Doubt | null
    /** Who confirmed it. */
    person_id: number | null
    /** Of the secret in the mailed link, which stands sealed while a mail with it may still go out. */
    hash: string
    secret: string | null
    mail: SignUpMail | null
    send_due: number | null
    tries: Generated<number>
    /** How many mails went out, and when the last did. */
    mailed: Generated<number>
    mailed_at: number | null
    /** What the mail server said last, where it did not take the mail. */
    answer: string | null
    /** When the one reminder goes out; when it lapses, or is dropped. */
    remind_due: number | null
    over_due: number | null
    ended_at: number | null
    /** Which work their browser did for it; null: none. */
    work: string | null
    /** When the team is told of it; null: it was, or is not. */
    tell_due: number | null
  }
  /** Files that are promised. */
  sign_up_files: { id: Generated<number>; name: string; mime: string; bytes: Buffer; at: number }
  /** What a program is told of somebody who has confirmed, with what it answered. */
  webhook_calls: {
    id: Generated<number>
    sign_up_id: number
    person_id: number
    url: string
    body: string
    at: number
    /** When it is tried next; null: it was taken, or given up. */
    due: number | null
    tries: Generated<number>
    tried_at: number | null
    /** 1 once the program has taken it. */
    taken: Generated<number>
    answer: string | null
  }
  /** Versions of a form that visitors see by lot, from when to when; and which was kept. */
  sign_up_tests: {
    id: Generated<number>
    sign_up_id: number
    /** JSON: their numbers. */
    versions: string
    began_at: number
    ended_at: number | null
    kept: number | null
  }
  /** Once for each visitor and day; who that was can't be found out once the day's key is gone. */
  sign_up_visits: {
    sign_up_id: number
    visitor: string
    version: number
    at: number
    language: ReaderLanguage
    device: Device
    page: string | null
    source: Generated<string>
    begun: Generated<number>
  }
  visitor_keys: { day: string; key: string }
}

export type SignUpState = 'draft' | 'live' | 'paused' | 'ended'
/** The mail that goes to who sent it in: to confirm; once more; that they are on the list already; what was promised. */
export type SignUpMail = 'confirm' | 'remind' | 'already' | 'promised'

/** The triggers that keep these tables; the migrations have their text. */
export const signUpTriggers = {
  sign_up_versions_are_never_updated: 'sign_up_versions: what was published stays',
} as const
