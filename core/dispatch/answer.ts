import type { LetterSender } from '../senders'
import type { PartKind } from './parts'
import type { DispatchPlan } from './plan'

/** How a mailing goes out, what it needs for that, and how far its parts have come. */
export interface PlanAnswer {
  plan: DispatchPlan
  /** The account's sender, which holds where the plan says nothing else. */
  sender: LetterSender
  version: string
  problems: string[]
  /** Other letters that can be tried. */
  drafts: { id: number; name: string }[]
  events: string[]
  segments: { id: number; name: string }[]
  /** Fields that hold somebody's time zone, with how many have one, the most first. */
  zoneFields: { key: string; name: string; people: number }[]
  /** The mailbox providers of most people. */
  domains: string[]
  /** Where the letter leads. */
  links: string[]
  /** What earlier mailings of the list came to; null where there were none. */
  usual: { opened: number; clicked: number; mailings: number } | null
  parts: { kind: PartKind; begunAt: number | null; tried: number; waiting: number }[]
  winner: number | null
  decidedAt: number | null
  decidedBy: string | null
  /** When the test decides by itself, as far as that is known: once all of its part have gone. */
  decidesAt: number | null
}
