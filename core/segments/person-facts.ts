import type { FieldValue } from '../people/fields'
import type { SubscriptionState } from '../people/subscription'
import type { RecipientState } from '../delivery/states'
import type { Keenness } from '../standing'

/** What must be known of a person to decide any rule. */
export interface PersonFacts {
  normal: string
  domain: string
  joinedAt: number
  /** Values by field key, first and last name among them. */
  values: Readonly<Record<string, FieldValue | null | undefined>>
  subscriptions: ReadonlyMap<number, SubscriptionFact>
  tags: ReadonlySet<number>
  mail: readonly MailFact[]
  clicks: readonly { mailingId: number; link: number; at: number }[]
  orders: readonly OrderFact[]
  events: readonly { name: string; at: number; props: Readonly<Record<string, unknown>> }[]
  /** Frozen segments they were put into. */
  frozen: ReadonlySet<number>
  /** Sequences they ever came into, by id: each of their rounds. */
  sequences: ReadonlyMap<number, readonly SequenceFact[]>
  /** Forms that they sent in and confirmed, the earliest first. */
  signUps: readonly { signUpId: number; at: number }[]
  keenness: Keenness
  suppressed: { at: number; reason: 'bounced' | 'complained' | 'by-hand' } | null
  /** The last time they asked for no mail: when, and until when; it may be over. */
  pause: { at: number; until: number } | null
  /** As `people.source` has it. */
  source: string | null
}

export interface SequenceFact {
  state: 'inside' | 'finished' | 'left'
  enteredAt: number
  endedAt: number | null
}

export interface SubscriptionFact {
  state: SubscriptionState
  since: number
  way: string | null
  /** What it was before, the oldest first. */
  earlier?: readonly SubscriptionFact[]
}

/** One mailing, as it went with this person. */
export interface MailFact {
  mailingId: number
  /** The sequence whose mailing it is; null for one that went out by itself. */
  sequenceId: number | null
  state: RecipientState
  at: number
  acceptedAt: number | null
  openedAt: number | null
  /** The user agent by which they opened it first. */
  openedOn: string | null
  clickedAt: number | null
  /** When they unsubscribed by it. */
  leftAt: number | null
  repliedAt: number | null
}

export interface OrderFact {
  at: number
  /** In minor units. */
  money: number
  items: readonly { product: string; category: string; money: number }[]
}
