import type { RecipientState, WaterfallStep } from '~~/core/delivery'
import type { DueLater } from '~~/core/dispatch'
import type { Letter, Letterhead } from '~~/core/letters'
import type { Field } from '~~/core/people'
import type { Mark } from '~~/core/proof'
import type { WeighedRendition } from '~~/core/letters'
import type { FooterWords } from '~~/core/letters/rendering'

/** What the server says of a mailing that is open. */
export interface OpenMailing {
  id: number
  name: string
  state: 'draft' | 'scheduled' | 'sending' | 'sent' | 'held'
  /** The sequence whose mailing it is; null for one that goes out by itself. */
  sequence: { id: number; name: string } | null
  list_id: number | null
  list: string | null
  lists: { id: number; name: string; subscribers: number }[]
  fields: Field[]
  joinedWithinDays: number | null
  /** Of which its people are in any. */
  segmentIds: number[]
  leftOutIds: number[]
  cap: { mailings: number; days: number } | null
  /** Whether it goes also to those whom the cap would spare. */
  pastCap: boolean
  segments: { id: number; name: string }[]
  waterfall: WaterfallStep[] | null
  /** Who would get it at the time it is set for; null where it is set for none. */
  eligibleThen: number | null
  settingsVersion: string
  /** How long it can still be called back, ms; 0 where not. */
  callbackMs: number
  /** The day and time it is scheduled for, as on a wall; null where it is not. */
  wish: string | null
  /** The wish is that of each reader's own clock. */
  localTime: boolean
  letter: Letter & { version: number }
  /** The letterhead that the letter is in; null: the account's own. */
  letterheadId: number | null
  letterhead: Letterhead
  /** As it stands in the letter's footer. */
  postalAddress: string
  footer: FooterWords
  /** While it goes out: who waits for a time that is still to come. */
  later: DueLater | null
  scheduled_at: number | null
  started_at: number | null
  finished_at: number | null
  held_by: 'hand' | 'proof' | 'line' | 'fault' | null
  held_note: string | null
  /** JSON: the blockers that the owner lets pass; see `Overruling`. */
  overruled: string | null
  waiting_note: string | null
  totals: Record<RecipientState | 'opened' | 'clicked', number> | null
  pace: number | null
  /** Who the letter comes from, as readers see it. */
  sender: string
}

/** What the server says of a letter's proof: its marks, and each version that goes out. */
export interface Proof {
  marks: Mark[]
  /** Null where there is one version for everybody. */
  renditions: WeighedRendition[] | null
  /** Bytes of the heaviest. */
  weight: number
}

/** What of a mailing is chosen on its pages, besides its letter and how it goes out. */
export type MailingSettings = Pick<
  OpenMailing,
  'name' | 'joinedWithinDays' | 'segmentIds' | 'leftOutIds' | 'pastCap' | 'letterheadId'
> & { listId: number | null }

export function settingsOf(mailing: OpenMailing): MailingSettings {
  const { name, joinedWithinDays, segmentIds, leftOutIds, pastCap, letterheadId, list_id } = mailing
  return { name, joinedWithinDays, segmentIds, leftOutIds, pastCap, letterheadId, listId: list_id }
}
