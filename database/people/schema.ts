import type { Generated } from 'kysely'
import type { ReaderLanguage } from '../../core/readers'
import type { SubscriptionState } from '../../core/people'
import type { LeaveReason } from '../../core/results'

/** The tables of people and what is known of them. */
export interface PeopleTables {
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
    /** Where they come from: "import:12", "api", "by hand: festival desk"; null: not known. */
    source: string | null
  }
  fields: {
    key: string
    name: string
    kind: string
    position: number
    /** Not offered any more since then; values and rules stay. */
    retired_at: number | null
    /** Whether readers see and change their value on their own page. */
    readers: Generated<number>
  }
  lists: {
    id: Generated<number>
    name: string
    key: string
    description: string
    /** What readers see of it. */
    public_name: Generated<string>
    public_about: Generated<string>
    /** How often it comes, as readers are told. */
    public_often: Generated<string>
    /** Whether readers may join it on their own page. */
    offered: Generated<number>
    /** What readers of it are spoken to in; null: the account's. */
    language: ReaderLanguage | null
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
    /** What was sent in by a sign-up's form, where that is how it came. */
    sending_id: number | null
  }
  tags: { id: Generated<number>; name: string; color: Generated<string> }
  /** What deleted tags were called. */
  gone_tags: { id: number; name: string }
  person_tags: { person_id: number; tag_id: number }
  set_aside: {
    person_id: number
    at: number
    reason: 'bounced' | 'complained' | 'by-hand'
    detail: string
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
  orders: { id: Generated<number>; number: string; person_id: number; at: number; money: number }
  order_items: {
    order_id: number
    position: number
    product_id: number
    quantity: number
    money: number
  }
  events: { id: Generated<number>; person_id: number; name: string; at: number; props: string }
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
    /** A bit for each list of an id up to 62 that they are subscribed to. */
    lists: Generated<number>
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
  notes: { id: Generated<number>; person_id: number; at: number; by_name: string; text: string }
  tasks: {
    id: Generated<number>
    person_id: number
    text: string
    /** A day of the account's calendar. */
    due: string
    for_address: string | null
    by_name: string
    at: number
    done_at: number | null
    done_by: string | null
  }
  erased: { hash: string; at: number }
  /** Who became whom; `gone_id` is nobody's any more. */
  merged_people: { gone_id: number; kept_id: number }
  leave_reasons: {
    mailing_id: number
    person_id: number
    round: Generated<number>
    reason: LeaveReason
    words: Generated<string>
    at: number
  }
}

/** The triggers that keep these tables, by name; the migrations have their text. */
export const peopleTriggers = {
  evidence_has_words: 'evidence: a subscription has the words that were agreed to',
  evidence_is_never_updated: 'evidence: no row is ever updated',
  facts_of_person: 'facts: a row for each person',
  facts_joined: 'facts: joined_at as in people',
  facts_list_joined: 'facts: a bit for each list subscribed to',
  facts_list_changed: 'facts: the same, when a subscription changes',
  facts_list_gone: 'facts: the same, when it is deleted',
  facts_sent_new: 'facts: sent, and the last five times',
  facts_sent: 'facts: the same, when a recipient is accepted later',
  facts_opened_new: 'facts: opened',
  facts_opened: 'facts: the same, when a recipient opens',
  facts_clicked_new: 'facts: clicked',
  facts_clicked: 'facts: the same, when a recipient clicks',
  facts_replied_new: 'facts: engagement by replies',
  facts_replied: 'facts: the same, when a recipient replies',
  facts_ordered: 'facts: orders, money and their times',
  facts_order_money: 'facts: money, when an order’s changes',
  orders_keep_person_and_time: 'orders: neither ever changes, since facts were made of them',
  tags_name_kept: 'gone_tags: a deleted tag’s name',
  words_of_person: 'people_words, by which people are found',
  words_gone: 'people_words',
  words_changed: 'people_words',
} as const
