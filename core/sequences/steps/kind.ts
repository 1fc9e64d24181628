import type { Around, Happening } from '../happening'
import type { Drawn } from './by-lot'
import type { Step } from '.'

/** What must be known of somebody who comes to a step. */
export interface ArrivalFacts {
  /** Whose days and hours count. */
  zone: string
  /** What a field of theirs holds, by its key; anything else than a value where they have none. */
  fieldOf: (field: string) => unknown
  /** The hour of the day at which they read most, by a zone's clock. */
  bestHour: (zone: string) => number
}

/** What must be known of somebody inside to go on with them. */
export interface InsideFacts extends ArrivalFacts {
  subscribed: boolean
  suppressed: boolean
  /** They asked for no mail until then; null: they did not. */
  pausedUntil: number | null
  /** From when on the frequency cap and their own wish leave room for one more mail, UTC ms. Absent: there is room now. */
  roomFrom?: () => number
  /** When the quiet hours are over in which it is now, UTC ms; now, where it is none of them. Absent: there are none. */
  quietUntil?: () => number
  /** Whether something holds for them now; `within`: whether it came to hold within so many ms of their coming in. */
  holds: (what: Happening, within?: number) => boolean
  /** How many times a wait sent them back in this round. Absent: never. */
  wentBack?: (step: string) => number
  /** Where they fall by lot at a step, from 0 up to but not including 1; always the same. */
  lot: (step: string) => number
  /** The shares that what is drawn by lot at a step has come to, in tenths of a percent; null: as its map says. */
  sharesOf: (step: string) => readonly number[] | null
}

/** Hands somebody over to another program: JSON by POST to an address, signed, once for each time they come by the step. */
export interface HandOver {
  is: 'hand'
  url: string
  how: HandHow
  /** What of them goes along: under which name, and which of their values (see {@link handable}). */
  fields: { as: string; from: string }[]
}

/** Whether the other program is to add them, to change who is there already, or either. */
export const handHows = {
  both: 'add, or update who is there',
  add: 'only add',
  update: 'only update who is there',
} as const
export type HandHow = keyof typeof handHows

/** What carrying a step out does in the world. */
export type Effect =
  /** `others`: further versions of it; nobody gets two of them in one round. */
  | { is: 'mail'; mailingId: number; others?: readonly number[] }
  | { is: 'tag' | 'untag'; tag: string }
  /** A value as it is typed; empty: the field is cleared. */
  | { is: 'set'; field: string; value: string }
  /** What is added to a number, or put beside the choices there, as it is typed. */
  | { is: 'add'; field: string; value: string }
  | { is: 'start'; sequenceId: number }
  /** Takes them out of another sequence. */
  | { is: 'stop'; sequenceId: number }
  /** Subscribes them to a list, by words that they agreed to; not who left it. */
  | { is: 'join'; listId: number; statement: string }
  | { is: 'note'; text: string }
  /** Something the team is to do about them, so many days later; `to`: the address of who does it, empty: anybody. */
  | { is: 'task'; text: string; days: number; to: string }
  /** Tells somebody of the team by mail, with these words. */
  | { is: 'tell'; to: string; text: string }
  | HandOver
  /** Unsubscribes from a list; null: the sequence's own, so that they leave it, too. */
  | { is: 'leave'; listId: number | null }

/**
 * What comes of a step: its effects, and which way on is taken (0: the main one); `back`: to a step before it, instead of
 * where that way leads. Or that they stay before it until a time.
 */
export type CarriedOut = { effects: Effect[]; way: number; back?: string } | { stay: number }

/** A way out of a step: where it leads (null: to Finish), and what it is called on the map. */
export interface Way {
  next: string | null
  words: string
}

/** A kind of step: everything about it that needs no page. One file each; `steps/index.ts` has them all. */
export interface StepKind<S extends Step = Step> {
  name: string
  /** Reads what is its own of JSON that came from outside, but for where it leads; null where it is none. */
  read(json: Record<string, unknown>): Omit<S, 'next'> | null
  /** `arrived`: when they came to the step. */
  carryOut(step: S, id: string, facts: InsideFacts, now: number, arrived: number): CarriedOut
  /** When somebody who arrives now goes on, where that is not at once. */
  due?(step: S, now: number, facts: ArrivalFacts): number
  /** The ways on, the main one first; absent: one, which leads to `next`. */
  ways?(step: S): Way[]
  /** What is drawn by lot at it, besides the main one; absent: nothing. */
  drawn?(step: S): readonly Drawn[]
  /** What it lacks, in sentences that stand beside it. */
  problems?(step: S, around: Around): string[]
}
