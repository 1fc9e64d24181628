import type { Role } from '../core/team'
import type { Generated } from 'kysely'
import type { SubscriptionState } from '../core/people'
import type { LetterTables } from './schema-letters'
import type { MailingTables } from './schema-mailings'
import type { SequenceTables } from './schema-sequences'

/**
 * Every table, as Kysely sees it. Times are UTC milliseconds; columns named in the singular of a
 * table with `_id` refer to it; JSON is kept as text.
 */
export interface Schema extends LetterTables, MailingTables, SequenceTables {
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
    /** A mailing that was sent off can be called back for so long, seconds of the host's clock. */
    callback_seconds: Generated<number>
    created_at: number
  }
  own_words: { word: string }
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
  people: {
    id: Generated<number>
    address: string
    normal: string
    domain: string
    first_name: string | null
    last_name: string | null
    /** Values of the account's own fields by key. */
    fields: Generated<string>
    joined_at: number
    changed_at: number
  }
  fields: {
    key: string
    name: string
    kind: string
    position: number
    /** Not offered any more since then; values and rules stay. */
    retired_at: number | null
  }
  lists: {
    id: Generated<number>
    name: string
    key: string
    description: string
    /** What readers see of it. */
    public_name: Generated<string>
    public_about: Generated<string>
    created_at: number
  }
  subscriptions: { person_id: number; list_id: number; state: SubscriptionState; since: number }
  wordings: { id: Generated<number>; text: string }
  evidence: {
    id: Generated<number>
    person_id: number
    list_id: number
    at: number
    state: SubscriptionState
    way: string
    way_ref: string | null
    wording_id: number | null
    ip: string | null
    agent: string | null
  }
  tags: { id: Generated<number>; name: string; color: Generated<string> }
  import_mappings: { header: string; plans: string; choices: string; used_at: number }
  person_tags: { person_id: number; tag_id: number }
  set_aside: {
    person_id: number
    at: number
    reason: 'bounced' | 'complained' | 'by-hand'
    detail: string
  }
  /** Rows of an imported file about which something is to be said. */
  imports: {
    id: Generated<number>
    job_id: number | null
    file_name: string
    path: string
    size: number
    encoding: string
    delimiter: string
    plans: string
    list_id: number | null
    statement: string
    state: ImportState
    /** Whether people are added, updated, or both. */
    mode: Generated<'both' | 'add' | 'update'>
    /** 1: an empty cell takes the value away; 0: it leaves it. */
    clear_empty: Generated<number>
    /** A tag that everybody in the file gets. */
    tag: string | null
    /** 1: who joins a list by it comes into the sequences that start so. */
    starts_sequences: Generated<number>
    /** JSON: what would happen, counted before anything is written. */
    preview: string | null
    /** JSON: what undoing it did. */
    undone: string | null
    rows: Generated<number>
    added: Generated<number>
    changed: Generated<number>
    unchanged: Generated<number>
    repeated: Generated<number>
    refused: Generated<number>
    never_mail: Generated<number>
    /** Left out because of the mode. */
    skipped: Generated<number>
    created_at: number
    finished_at: number | null
  }
  import_notices: {
    import_id: number
    row: number
    verdict: 'refused' | 'doubtful'
    reason: string
    cells: string
  }
  import_added: { import_id: number; first_id: number; last_id: number }
  import_changes: { import_id: number; person_id: number; change: string }
  segments: {
    id: Generated<number>
    name: string
    rule: string
    created_at: number
    updated_at: number
    /** Counts up with each change, so that two who edit at once don't lose anything. */
    version: Generated<number>
    /** When its members were fixed; null for a segment that is computed. */
    deleted_at: number | null
    /** The query in SQL by which its people were found. */
    query: string | null
    frozen_at: number | null
  }
  frozen_people: { segment_id: number; person_id: number }
  /** How many were in a segment at the end of a day, and who came and went on it. */
  segment_days: {
    segment_id: number
    day: string
    at: number
    size: number
    came: number
    went: number
    /** The version of the segment whose rule it was. */
    version: number
  }
  segment_people: { segment_id: number; person_id: number }
  segment_moves: {
    segment_id: number
    day: string
    person_id: number
    came: number
    why: string | null
  }
  products: {
    id: Generated<number>
    key: string
    name: string
    category: string
    price: number
    created_at: number
    /** Where readers find it, and how it looks; where it is not known, it is not picked. */
    url: string | null
    picture: string | null
    /** How many there are; null where nobody counts. */
    stock: number | null
  }
  /** Money in minor units of the account's currency. */
  orders: { id: Generated<number>; number: string; person_id: number; at: number; money: number }
  order_items: {
    order_id: number
    position: number
    product_id: number
    quantity: number
    money: number
  }
  events: { id: Generated<number>; person_id: number; name: string; at: number; props: string }
  /** Sums for each person, kept true by triggers; see the migration. */
  facts: {
    person_id: number
    joined_at: number
    sent: number
    last_sent_at: number | null
    /** When the mailings before the last were accepted, newest first; 0 where there was none. */
    sent_2nd_at: Generated<number>
    sent_3rd_at: Generated<number>
    sent_4th_at: Generated<number>
    sent_5th_at: Generated<number>
    opened: number
    last_opened_at: number | null
    clicked: number
    last_clicked_at: number | null
    orders: number
    spent: number
    first_order_at: number | null
    last_order_at: number | null
    keenness: number | null
  }
  api_tokens: {
    id: Generated<number>
    name: string
    hash: string
    created_at: number
    last_used_at: number | null
    revoked_at: number | null
  }
  api_answers: {
    token_id: number
    key: string
    request_hash: string
    status: number
    answer: string
    at: number
  }
  notes: { id: Generated<number>; person_id: number; at: number; by_name: string; text: string }
  erased: { hash: string; at: number }
  reports: {
    id: Generated<number>
    raw: string
    at: number
    read: Generated<number>
    outcome: string | null
    /** Whom it is about, where that can be told. */
    person_id: number | null
  }
  link_checks: {
    url: string
    asked_at: number
    checked_at: number | null
    status: number | null
    problem: string | null
  }
  feeds: {
    url: string
    asked_at: number
    /** Null until the engine has read it since it was asked for. */
    read_at: number | null
    entries: Generated<string>
    problem: string | null
  }
  jobs: {
    id: Generated<number>
    kind:
      | 'import'
      | 'preview-import'
      | 'undo-import'
      | 'change-field'
      | 'order-field'
      | 'send-copies'
      | 'data-out'
      | 'move-acts'
    payload: string
    state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'
    done: Generated<number>
    total: Generated<number>
    error: string | null
    engine: string | null
    cancel: Generated<number>
    created_at: number
    finished_at: number | null
    /** How often the process that carried it out ended at it. */
    deaths: Generated<number>
  }
}

export type ImportState =
  | 'counting'
  | 'counted'
  | 'waiting'
  | 'running'
  | 'done'
  | 'failed'
  | 'cancelled'
  | 'undoing'
  | 'undone'
export type { ActTotal, MailingState } from './schema-mailings'
