import type { Task } from '../people'
import type { Day } from '../time'

/** A mailing as the run sheet shows it. */
export interface SheetMailing {
  id: number
  name: string
  state: string
  /** By what it stands still, where it does. */
  held_by: string | null
  at: number
  recipients: number
  delivered: number
  opened: number
  clicked: number
}

/** Something that waits for the user. */
export type Waiting =
  | {
      kind: 'held'
      mailing: SheetMailing
      by: string | null
      note: string | null
      blockers: string[]
    }
  | { kind: 'bounces'; domain: string; rate: number; bounced: number; tried: number }
  | { kind: 'stuck'; mailing: SheetMailing; note: string | null }
  | { kind: 'uncertain'; mailing: { id: number; name: string }; count: number }
  | { kind: 'sign-up'; id: number; name: string; toLook: number }
  | { kind: 'import'; id: number; name: string; refused: number; rows: number }

/** A share with what it is of, and whether it is over its limit. */
interface StandingRate {
  n: number
  of: number
  rate: number
  over: boolean
}

/** The mail of a sequence, by days from one on: what was accepted, and what is to come as things stand. */
export interface SequenceDays {
  id: number
  /** When the first of the days begins, UTC ms: another sheet begins on another. */
  from: number
  sent: number[]
  coming: number[]
}

/** So many sequences have a line on the sheet. */
export const SHEET_SEQUENCES = 4

/** The first page: what went out and what will, what waits, the list and standing. */
export interface TodaySheet {
  now: number
  zone: string
  from: number
  to: number
  mailings: SheetMailing[]
  /** Sequences that run or are paused, those with the most people inside first; their mail by day is counted apart. */
  sequences: { id: number; name: string; state: string; inside: number }[]
  waiting: Waiting[]
  /** What the team is to do about people: what presses most, how much there is, and how much of it was due by today. */
  tasks: { tasks: Task[]; open: number; due: number; today: Day }
  people: {
    count: number
    days: number
    growth: Record<'joined' | 'left' | 'aside', { day: number; n: number }[]>
  }
  standing: {
    domain: string
    delivered: number
    recipients: number
    rates: { bounced: StandingRate; complained: StandingRate }
  }[]
}
