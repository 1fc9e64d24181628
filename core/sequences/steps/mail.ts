import { DAY } from '../../time'
import type { CarriedOut, InsideFacts, StepKind } from './kind'

/** A mailing of the sequence's own, whose letter goes out to everybody who comes by. */
export interface MailStep {
  kind: 'mail'
  mailingId: number
  /** Where they had as much mail as the frequency cap or they themselves allow. Absent: it goes out all the same. */
  full?: WhenFull
  /** Who paused their mail: they go on without it. Absent: it waits for the end of the pause. */
  paused?: 'skip'
  next: string | null
}

/** They go on without it; or it waits until there is room, at most so many days, and then goes out. */
export type WhenFull = 'skip' | { waitDays: number }
export const MOST_WAIT_DAYS = 30

/** Nobody is mailed who paused their mail. Who waits stays before the step. */
export const mail: StepKind<MailStep> = {
  name: 'Mail',
  read({ mailingId, full: json, paused }) {
    if (!Number.isSafeInteger(mailingId) || (mailingId as number) <= 0) return null
    const full = json == null ? undefined : readFull(json)
    if (full === null || (paused != null && paused !== 'skip')) return null
    return {
      ...{ kind: 'mail', mailingId: mailingId as number },
      ...(full && { full }),
      ...(paused === 'skip' && { paused }),
    }
  },
  carryOut(step, _id, facts, now, arrived) {
    const { pausedUntil } = facts
    if (pausedUntil !== null && pausedUntil > now)
      return step.paused === 'skip' ? past : { stay: pausedUntil }
    return held(step.full, facts, now, arrived) ?? goesOut(step)
  },
}

const past: CarriedOut = { effects: [], way: 0 }
const goesOut = ({ mailingId }: MailStep): CarriedOut => ({
  effects: [{ is: 'mail', mailingId }],
  way: 0,
})

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
