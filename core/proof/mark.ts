import type { DomainCheck } from '../authentication'
import type { ProviderSays, TrialState } from '../delivery'
import type { Repair } from './repair'
import type { FeedEntry, Letter, Letterhead, Rendition } from '../letters'

/** Blockers hold the dispatch; cautions should be looked at; notes are for knowing. */
export type MarkLevel = 'blocker' | 'caution' | 'note'

/** One finding. `blockId` is the block it points at; null for the letter or mailing as a whole. */
export interface Mark {
  check: string
  level: MarkLevel
  blockId: string | null
  title: string
  detail: string
  /** Whose reading of the letter it is about: those for whom its rules are so, or who lack a value. */
  readers?: { truths: number[] } | { lacks: string }
  /** What one click does about it. */
  repairs?: Repair[]
}

/** What asking for a link gave. `status` is the final HTTP status; null where no answer came. */
export interface LinkCheck {
  status: number | null
  problem: string | null
}

/** Of the audience and its other mail. */
export interface PeopleFacts {
  /** Recipients of the last mailings to the same audience, the latest first. */
  earlier: readonly number[]
  /** Other mailings within 48 hours that some of the audience get, too; `when` is a sentence. */
  overlaps: readonly { name: string; at: number; when: string; people: number }[]
  /** How many the frequency cap spares; null where there is none. */
  spared: number | null
}

/** Everything the checks look at. All counts are exact, over the real audience. */
export interface ProofFacts {
  letter: Letter
  listName: string | null
  audienceCount: number
  /** What the segment refers to and is not there any more, in words. */
  segmentProblems: readonly string[]
  /** What the letter's own rules refer to and is not there any more, by the row or block. */
  ruleProblems: readonly { id: string; problem: string }[]
  /** The versions that go out to this audience; null where they are not known. */
  renditions: readonly Rendition[] | null
  postalAddress: string
  /** For the path of each fill-in ("person.town"): how many of the audience have no value. Unknown paths are absent. */
  gaps: ReadonlyMap<string, number>
  /** Who was asked to approve the letter, and what they said; null where nobody was. */
  approval: {
    ofName: string
    verdict: 'approved' | 'not yet' | null
    words: string | null
    lapsed: boolean
    /** What has changed since, in words. */
    lapsedBy: readonly string[]
  } | null
  /** For each block of picked products, how many there are to pick from. */
  offered: ReadonlyMap<string, number>
  /** What each feed of the letter told when it was read last, by its address. */
  feeds: ReadonlyMap<string, readonly FeedEntry[]>
  letterhead: Letterhead
  /** The day on which the letter goes out, in the account's zone: the one that is set, or today. */
  goesOutOn: string
  /** Bytes of HTML: the whole, and what is left out on some screens; null where it was not reckoned. */
  weight: { whole: number; hidden: number } | null
  /** Paths that a fill-in may have. */
  names: readonly string[]
  /** Words that no dictionary knows, with what they might be; null where they were not looked up. */
  misspelt: readonly { word: string; suggestions: readonly string[] }[] | null
  /** What is about the people of the audience and their other mail; null where it was not asked. */
  people: PeopleFacts | null
  /** What name servers say of the sender's domain; null where they were not asked yet. */
  domain: DomainCheck | null
  /** Who the letter comes from, and how many of the audience have their mailbox at the same domain; null where not known. */
  sender: { name: string; address: string; atSameDomain: number } | null
  /** What became of the letter in mailboxes to which it was sent to try; `changed` where it is another letter by now. */
  trials: readonly ({
    address: string
    state: TrialState
    folder: string | null
    changed: boolean
  } & ProviderSays)[]
  /** Links already looked at, by URL. */
  links: ReadonlyMap<string, LinkCheck>
}
