import type { FrequencyCap, Opens } from '../dispatch'
import type { Tier } from '../standing'
import type { QuietHours } from '../time'

/** Whom a sequence is rehearsed with: people drawn from those it would write to, and what is known of them. */
export interface Audience {
  people: readonly Drawn[]
  /** Whether they are all there are; else they were drawn by lot. */
  isAll: boolean
  customs: Customs
  /** By a rule, as JSON: whether each of the people fits it now, in their order. */
  fits: Readonly<Record<string, readonly boolean[]>>
}

/** Somebody of the audience, with what they did so far. */
export interface Drawn {
  id: number
  tier: Tier
  sent: number
  opened: number
  clicked: number
  orders: number
  /** For how many days they are known. */
  days: number
  /** What their fields hold by their keys, where the map asks for them. */
  fields: Readonly<Record<string, unknown>>
  /** When they opened mail lately, UTC ms, where the map asks for their best hour. */
  opens: readonly number[]
}

/** What holds of everybody. */
export interface Customs {
  zone: string
  /** How much is opened at each hour of the day, on the account’s clock; 1: at the hour at which most is. */
  hours: readonly number[]
  /** When everybody opened mail lately, where the map asks for best hours. */
  opens: readonly Opens[]
  /** In which hours of that clock sequences write nothing; null: in none. */
  quiet: QuietHours | null
  /** How much mail one gets at most; null: as much as there is. */
  cap: FrequencyCap | null
  /** How many hours that clock is ahead of UTC. */
  hoursAhead: number
  /** How long a mail lies unopened, of those that are opened: the mean, ms. */
  openDelay: number
  /** Of those who open a mail, the share that unsubscribes by it. */
  leaveOfOpen: number
  /** By an event’s `deedOf`: how often somebody does it. */
  events: Readonly<Record<string, Often>>
  /** By {@link linkIn}: of those who click in a mail, the share that clicks on a link that is asked for. */
  links: Readonly<Record<string, number>>
  /** What those did who were inside before; null where too few were. */
  inside: { orders: Soon; open: number; clickOfOpen: number } | null
}

/** Names a link to an address in the mail of a step. */
export const linkIn = (mail: string, url: string): string => `${mail} ${url}`

/** At any time alike, so often a day; or as those do who came in. */
export type Often = { perDay: number } | Soon

/** The share that does it at all after coming in, and how long after, ms, as the mean of those. */
export interface Soon {
  share: number
  mean: number
}
