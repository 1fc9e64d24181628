import { readCarried, type Carried } from '../segments'
import { DAY, HOUR, isDay, MINUTE } from '../time'
import { isDayRule, type MomentStart } from './moments'
import type { Referred } from './references'

/** What lets somebody in: something that they newly do, that newly holds of them, or a date of theirs. */
export type Starting =
  /** Joins the sequence's list; null: by whatever way, or by one sign-up (0: none is chosen yet). */
  | { is: 'joined'; signUpId: number | null }
  /** Does an event of this name; `where`: that carried what is asked. */
  | { is: 'event'; name: string; where?: Carried }
  | { is: 'ordered'; first: boolean }
  /** Does an event, and within a time neither the other nor (null) an order follows. */
  | { is: 'left behind'; name: string; unless: string | null; within: number }
  /** Comes into a segment, or leaves it; noted once a day. */
  | { is: 'segment'; segmentId: number; comes: boolean }
  | DateStart
  | MomentStart
  /** Gets a tag, or loses it; 0: none is chosen yet. */
  | { is: 'tag'; tagId: number; gets: boolean }
  /** Gets another value for a field; `to` as it is typed, null: whatever it is, also none. */
  | { is: 'field'; field: string; to: string | null }
  | MailedStart
  /** A program says so by the API. */
  | { is: 'api' }

/** Is sent a mailing, opens it, clicks in it, or neither opens nor clicks within a time of being sent it. */
export interface MailedStart {
  is: 'mailed'
  /** 0: none is chosen yet. */
  mailingId: number
  did: 'sent' | 'opened' | 'clicked' | 'not opened'
  /** ms; of not opening alone. */
  within: number
}

export const mailedWays = {
  sent: 'is sent it',
  opened: 'opens it',
  clicked: 'clicks in it',
  'not opened': 'has not opened it within',
} as const satisfies Record<MailedStart['did'], string>

/** A date of theirs is so many days away (before it: less than 0), from an hour of that day on. */
export interface DateStart {
  is: 'date'
  /** A field that holds dates; or the day on which they joined. */
  of: string
  days: number
  yearly: boolean
  /** On the account's clock. */
  hour: number
}

/** The day somebody joined, where a field's key would stand. */
export const JOINED = 'joined_at'

/** Whether somebody who was inside before may come in anew, for a round of its own. */
export type Again =
  | { is: 'never' }
  /** Once they came out at Finish or by the goal. */
  | { is: 'finished' }
  /** So many days after they came in last, if they are out. */
  | { is: 'days'; days: number }
  /** Each time, also while they are inside: every event its own round. */
  | { is: 'each' }

export const never: Again = { is: 'never' }

/** An earlier round of somebody's. */
export interface EarlierRound {
  state: 'inside' | 'finished' | 'left'
  /** UTC milliseconds. */
  entered: number
}

/** Whether somebody with these rounds, the latest last, may come in now. */
export function mayComeIn(again: Again, rounds: readonly EarlierRound[], now: number): boolean {
  const last = rounds.at(-1)
  if (!last || again.is === 'each') return true
  if (rounds.some(({ state }) => state === 'inside')) return false
  switch (again.is) {
    case 'never':
      return false
    case 'finished':
      return last.state === 'finished'
    case 'days':
      return now - last.entered >= again.days * DAY
  }
}

const LONGEST_WITHIN = 90 * DAY
const MOST_DAYS = 366

/** Everything about a kind of start that needs no database; another is an entry here, its query, and its settings. */
interface StartKind<S extends Starting> {
  /** As it goes on after "somebody who". */
  name: string
  read(json: Record<string, unknown>): S | null
  /** Where it names something of the account, by number: under which key, and what. */
  refers?: readonly [key: keyof S & string, what: Referred]
  /** What it lacks, as a sentence; null where it lacks nothing. */
  lacks?(start: S): string | null
}

export const startKinds: { [K in Starting['is']]: StartKind<Extract<Starting, { is: K }>> } = {
  joined: {
    name: 'joins the list',
    // Before there were sign-ups to choose, none was named.
    read: ({ signUpId = null }) =>
      signUpId === null || isIdOrNone(signUpId) ? { is: 'joined', signUpId } : null,
    refers: ['signUpId', 'signUp'],
    lacks: ({ signUpId }) =>
      signUpId === 0 ? 'People come in by a sign-up, and it is not said which.' : null,
  },
  event: {
    name: 'does an event',
    read({ name, where }) {
      const carried = where == null ? null : readCarried(where)
      if (!isName(name) || (where != null && !carried)) return null
      return { is: 'event', name, ...(carried && { where: carried }) }
    },
    lacks: ({ name }) =>
      name.trim() === '' ? 'People come in by an event, and it is not said which.' : null,
  },
  ordered: {
    name: 'orders',
    read: ({ first }) => ({ is: 'ordered', first: first === true }),
  },
  'left behind': {
    name: 'leaves something behind',
    read: ({ name, unless = null, within }) =>
      isName(name) &&
      (unless === null || isName(unless)) &&
      isWhole(within, 5 * MINUTE, LONGEST_WITHIN)
        ? { is: 'left behind', name, unless, within }
        : null,
    lacks: ({ name, unless }) =>
      name.trim() === ''
        ? 'People come in by leaving something behind, and it is not said by which event.'
        : name === unless
          ? 'An event can’t be followed by itself.'
          : null,
  },
  segment: {
    name: 'comes into a segment, or leaves it',
    read: ({ segmentId, comes }) =>
      segmentId === 0 || isId(segmentId)
        ? { is: 'segment', segmentId: segmentId as number, comes: comes !== false }
        : null,
    refers: ['segmentId', 'segment'],
    lacks: ({ segmentId }) =>
      segmentId === 0 ? 'People come in by a segment, and it is not said which.' : null,
  },
  date: {
    name: 'has a date',
    read: ({ of, days, yearly, hour }) =>
      isName(of) && isWhole(days, -MOST_DAYS, MOST_DAYS) && isWhole(hour, 0, 23)
        ? { is: 'date', of, days, yearly: yearly !== false, hour }
        : null,
    lacks: ({ of }) =>
      of === '' ? 'People come in by a date of theirs, and it is not said which.' : null,
  },
  tag: {
    name: 'gets a tag, or loses it',
    read: ({ tagId, gets }) =>
      isIdOrNone(tagId) ? { is: 'tag', tagId, gets: gets !== false } : null,
    refers: ['tagId', 'tag'],
    lacks: ({ tagId }) =>
      tagId === 0 ? 'People come in by a tag, and it is not said which.' : null,
  },
  field: {
    name: 'has a field changed',
    read: ({ field, to = null }) =>
      isName(field) && (to === null || (typeof to === 'string' && to.length <= 1_000))
        ? { is: 'field', field, to }
        : null,
    lacks: ({ field, to }) =>
      field === ''
        ? 'People come in by a field, and it is not said which.'
        : to?.trim() === ''
          ? 'People come in by the value of a field, and it is not said which.'
          : null,
  },
  mailed: {
    name: 'is sent a mailing, opens it or not',
    read: ({ mailingId, did, within }) =>
      isIdOrNone(mailingId) &&
      typeof did === 'string' &&
      Object.hasOwn(mailedWays, did) &&
      isWhole(within, HOUR, LONGEST_WITHIN)
        ? { is: 'mailed', mailingId, did: did as MailedStart['did'], within }
        : null,
    refers: ['mailingId', 'mailing'],
    lacks: ({ mailingId }) =>
      mailingId === 0 ? 'People come in by a mailing, and it is not said which.' : null,
  },
  moment: {
    name: 'is in a segment at a moment',
    read: ({ from, hour, rule = null, segmentId }) =>
      (from === '' || isDay(from)) &&
      isWhole(hour, 0, 23) &&
      (rule === null || isDayRule(rule)) &&
      isIdOrNone(segmentId)
        ? { is: 'moment', from: from as string, hour, rule: rule as string | null, segmentId }
        : null,
    refers: ['segmentId', 'segment'],
    lacks: ({ from }) =>
      from === '' ? 'People come in at a moment, and it is not said on which day.' : null,
  },
  api: {
    name: 'is let in by the API',
    read: () => ({ is: 'api' }),
  },
}
const kindOf = (start: Starting) => startKinds[start.is] as StartKind<Starting>

/** What a start lacks, as a sentence; null where it lacks nothing. */
export const startLacks = (start: Starting): string | null => kindOf(start).lacks?.(start) ?? null

/** Reads one from JSON that came from outside; null where it is none. */
export function readStarting(json: unknown): Starting | null {
  if (typeof json !== 'object' || json === null) return null
  const { is } = json as { is?: unknown }
  return typeof is === 'string' && Object.hasOwn(startKinds, is)
    ? startKinds[is as Starting['is']].read(json as Record<string, unknown>)
    : null
}

/** Reads when somebody may come in again; null where it is nothing of the kind. */
export function readAgain(json: unknown): Again | null {
  const { is, days } = (json ?? never) as { is?: unknown; days?: unknown }
  switch (is) {
    case 'never':
    case 'finished':
    case 'each':
      return { is }
    case 'days':
      return isWhole(days, 1, 3_660) ? { is, days } : null
    default:
      return null
  }
}

const isName = (value: unknown): value is string => typeof value === 'string' && value.length <= 100
const isId = (value: unknown): value is number =>
  Number.isSafeInteger(value) && (value as number) > 0
/** 0: nothing is chosen yet. */
const isIdOrNone = (value: unknown): value is number => value === 0 || isId(value)
const isWhole = (value: unknown, least: number, most: number): value is number =>
  Number.isSafeInteger(value) && (value as number) >= least && (value as number) <= most

/** What a start is like when it is added. */
export const freshStarts: { [K in Starting['is']]: Extract<Starting, { is: K }> } = {
  joined: { is: 'joined', signUpId: null },
  event: { is: 'event', name: '' },
  ordered: { is: 'ordered', first: false },
  'left behind': { is: 'left behind', name: '', unless: null, within: 4 * HOUR },
  segment: { is: 'segment', segmentId: 0, comes: true },
  date: { is: 'date', of: '', days: 0, yearly: true, hour: 9 },
  tag: { is: 'tag', tagId: 0, gets: true },
  field: { is: 'field', field: '', to: null },
  mailed: { is: 'mailed', mailingId: 0, did: 'not opened', within: 3 * DAY },
  moment: { is: 'moment', from: '', hour: 9, rule: null, segmentId: 0 },
  api: { is: 'api' },
}
