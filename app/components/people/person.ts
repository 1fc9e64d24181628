import type { ShownReply } from '~/components/common/ReplyList.vue'
import type { Field, FieldValue, Task } from '~~/core/people'
import type { Day } from '~~/core/time'

/** A person as their page shows them. */
export interface Person {
  id: number
  address: string
  name: string
  joinedAt: number
  /** Where they come from, where that is known. */
  source: { words: string; importId: number | null } | null
  currency: string
  /** Which day it is for the account. */
  today: Day
  /** Where the team reads mail. */
  team: string[]
  tasks: Task[]
  values: Record<string, FieldValue>
  fields: Field[]
  pulse: ('clicked' | 'opened' | 'delivered' | 'not-sent' | 'bounced')[]
  hours: number[][]
  tier: string
  engagement: number
  keenness: number[]
  spent: number
  segments: { id: number; name: string }[]
  subscriptions: { list_id: number; name: string; state: string; since: number }[]
  tags: string[]
  suppressed: { at: number; reason: string; detail: string } | null
  evidence: {
    at: number
    state: string
    way: string
    way_ref: string | null
    /** The page on which a sign-up’s form stood. */
    page: string | null
    list: string
    wording: string | null
  }[]
  mailings: {
    id: number
    name: string
    /** Of which of their rounds in its sequence, counted from 0. */
    round: number
    state: string
    at: number
    opened_at: number | null
    clicked_at: number | null
    left_at: number | null
    answer: string | null
  }[]
  orders: {
    id: number
    number: string
    at: number
    money: number
    items: { name: string; quantity: number }[]
  }[]
  events: { name: string; at: number; props: string }[]
  sequences: {
    id: number
    name: string
    state: 'inside' | 'finished' | 'left'
    why: string | null
    /** Which time it was, counted from 0. */
    round: number
    entered_at: number
    ended_at: number | null
  }[]
  /** What they asked for by themselves, as far as it holds now. */
  limits: { pausedUntil: number | null; oneInDays: number | null }
  ownChanges: { at: number; detail: string; wording: string }[]
  replies: ShownReply[]
  notes: { id: number; at: number; by_name: string; text: string }[]
}
