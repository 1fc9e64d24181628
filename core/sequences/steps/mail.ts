import { DAY } from '../../time'
import { areShares, fallsOn, readJudged, type Drawn, type Judged } from './by-lot'
import type { CarriedOut, InsideFacts, StepKind } from './kind'

/** A mailing of the sequence's own, whose letter goes out to everybody who comes by. */
export interface MailStep {
  kind: 'mail'
  mailingId: number
  /** Other versions that are tried: mailings like it, each to its share of those who come by. Absent: none. */
  versions?: (Drawn & { mailingId: number })[]
  /** By what the versions are judged; absent: they are not. */
  judged?: Judged
  /** Where they had as much mail as the frequency cap or they themselves allow. Absent: it goes out all the same. */
  full?: WhenFull
  /** In quiet hours: they go on without it, or it goes out all the same. Absent: it waits for their end. */
  quiet?: 'skip' | 'past'
  /** Who paused their mail: they go on without it. Absent: it waits for the end of the pause. */
  paused?: 'skip'
  next: string | null
}

/** They go on without it; or it waits until there is room, at most so many days, and then goes out. */
export type WhenFull = 'skip' | { waitDays: number }
export const MOST_WAIT_DAYS = 30
/** Who is to wait for room waits so long, unless something else is said. */
export const USUAL_WAIT_DAYS = 3

/** Nobody is mailed who paused their mail. Who waits stays before the step. */
export const mail: StepKind<MailStep> = {
  name: 'Mail',
  read({ mailingId, versions: others, judged: given, full: json, paused, quiet }) {
    if (!isMailing(mailingId)) return null
    const versions = others == null ? [] : readVersions(others, mailingId)
    const judged = readJudged(given)
    const full = json == null ? undefined : readFull(json)
    if (quiet != null && quiet !== 'skip' && quiet !== 'past') return null
    if (!versions || !judged || full === null || (paused != null && paused !== 'skip')) return null
    return {
      ...{ kind: 'mail', mailingId },
      ...(versions.length && { versions, ...judged }),
      ...(full && { full }),
      ...(paused === 'skip' && { paused }),
      ...(quiet && { quiet }),
    }
  },
  drawn: ({ versions = [] }) => versions,
  carryOut(step, id, facts, now, arrived) {
    const { pausedUntil } = facts
    if (pausedUntil !== null && pausedUntil > now)
      return step.paused === 'skip' ? past : { stay: pausedUntil }
    return (
      held(step.full, facts, now, arrived) ??
      hushed(step.quiet, facts, now) ??
      goesOut(step, id, facts)
    )
  },
}

/** The mailings of its versions, the main one first. */
export const mailingsOfMail = ({ mailingId, versions = [] }: MailStep): number[] => [
  mailingId,
  ...versions.map((one) => one.mailingId),
]

/** A mail without one of its versions: where the main one goes, the first of the others takes its place. */
export function withoutVersion(step: MailStep, which: number): MailStep {
  const { mailingId, versions = [], judged, ...rest } = step
  const all = [{ mailingId, share: 0 }, ...versions]
  const [main, ...left] = all.filter((_, n) => n !== which)
  if (!main) return step
  const tried = left.length > 0 && { versions: left, ...(judged && { judged }) }
  return { ...rest, mailingId: main.mailingId, ...tried }
}

const past: CarriedOut = { effects: [], way: 0 }
function goesOut(step: MailStep, id: string, { lot, sharesOf }: InsideFacts): CarriedOut {
  const { mailingId, versions } = step
  if (!versions) return { effects: [{ is: 'mail', mailingId }], way: 0 }
  const mailings = mailingsOfMail(step)
  const which = mailings[fallsOn(versions, lot(id), sharesOf(id))]!
  const others = mailings.filter((one) => one !== which)
  return { effects: [{ is: 'mail', mailingId: which, others }], way: 0 }
}

/** What comes of a mail for which there is no room; null where there is, or where it does not ask. */
function held(
  full: WhenFull | undefined,
  { roomFrom }: InsideFacts,
  now: number,
  arrived: number,
): CarriedOut | null {
  const from = full && roomFrom ? roomFrom() : now
  if (!full || from <= now) return null
  if (full === 'skip') return past
  const until = Math.min(from, arrived + full.waitDays * DAY)
  return until > now ? { stay: until } : null
}

/** What comes of a mail in quiet hours; null where it is none of them, or where it goes past them. */
function hushed(
  quiet: MailStep['quiet'],
  { quietUntil }: InsideFacts,
  now: number,
): CarriedOut | null {
  const from = quiet !== 'past' && quietUntil ? quietUntil() : now
  if (from <= now) return null
  return quiet === 'skip' ? past : { stay: from }
}

const isMailing = (id: unknown): id is number => Number.isSafeInteger(id) && (id as number) > 0

/** Versions of which each is a mailing of its own; null where they are none. */
function readVersions(json: unknown, main: number): MailStep['versions'] | null {
  if (!Array.isArray(json)) return null
  const read = json.map((one: unknown) => {
    const { mailingId, share } = (one ?? {}) as Record<string, unknown>
    return { mailingId, share }
  })
  const ids = [main, ...read.map(({ mailingId }) => mailingId)]
  return ids.every(isMailing) && new Set(ids).size === ids.length && areShares(read)
    ? (read as MailStep['versions'])
    : null
}

function readFull(json: unknown): WhenFull | null {
  if (json === 'skip') return json
  if (typeof json !== 'object') return null
  const { waitDays } = json as { waitDays?: unknown }
  return Number.isSafeInteger(waitDays) &&
    (waitDays as number) >= 1 &&
    (waitDays as number) <= MOST_WAIT_DAYS
    ? { waitDays: waitDays as number }
    : null
}
