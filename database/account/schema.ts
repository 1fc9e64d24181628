import type { Generated } from 'kysely'
import type { ReaderLanguage } from '../../core/readers'
import type { RepliesGo } from '../../core/senders'
import type { Role } from '../../core/team'

/** The tables of the account, its users and the clock. */
export interface AccountTables {
  account: {
    id: number
    name: string
    zone: string
    currency: string
    sender_name: string
    sender_address: string
    postal_address: string
    letterhead: string
    /** Hex; signs every public token. */
    token_key: string
    short_tokens_up_to: Generated<number>
    dkim_selector: string
    dkim_private_key: string
    pace_per_minute: number | null
    /** At most so many mailings in so many days to one person; null: no cap. */
    cap_mailings: number | null
    cap_days: number
    /** Hours of the account’s clock from which up to which sequences write nothing; null: none. */
    quiet_from: number | null
    quiet_to: number | null
    /** A mailing that was sent off can be called back for so long, seconds of the host's clock. */
    callback_seconds: Generated<number>
    /** Where replies go: kept here and passed on, or to the sender's address, past us. */
    replies: Generated<RepliesGo>
    /** What readers are spoken to in, unless a list or a person says otherwise. */
    language: Generated<ReaderLanguage>
    created_at: number
  }
  domain_checks: {
    domain: string
    asked_at: number
    /** Null until the engine has asked since. */
    checked_at: number | null
    /** JSON: see `DomainCheck`. */
    result: string | null
  }
  users: {
    id: Generated<number>
    name: string
    address: string
    password_hash: string
    role: Role
    created_at: number
    removed_at: number | null
    /** Sealed. */
    totp_secret: string | null
    totp_step: number | null
    reset_hash: string | null
    reset_until: number | null
  }
  recovery_codes: { user_id: number; hash: string }
  sessions: {
    id: Generated<number>
    hash: string
    user_id: number
    began_at: number
    used_at: number
    confirmed_at: number
    device: string
    address: string
  }
  audit: {
    id: Generated<number>
    at: number
    user_id: number | null
    user_name: string
    did: string
    what: string
    address: string
    device: string
  }
  clock: {
    id: number
    anchor_real: number
    anchor_practice: number
    rate: number
    jump_to: number | null
    /** How far the practice world says it has come. */
    followed_at: Generated<number>
  }
}

/** The triggers that keep these tables, by name; the migrations have their text. */
export const accountTriggers = {
  audit_is_never_changed: 'audit: no row is ever updated',
  audit_is_kept_for_two_years: 'audit: no row younger than that is deleted',
} as const
