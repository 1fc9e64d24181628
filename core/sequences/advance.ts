import type { SequenceMap } from './map'

/** Where somebody stands: the step that is carried out next, when, and which visit to it that is. */
export interface Place {
  step: string
  /** UTC milliseconds. */
  due: number
  /** How many steps were carried out before; with the step it names each effect once and for all. */
  visit: number
}

/** What must be known of somebody inside to go on with them. */
export interface InsideFacts {
  subscribed: boolean
  suppressed: boolean
  /** They asked for no mail until then; null: they did not. */
  pausedUntil: number | null
}

/** What carrying a step out does in the world. */
export type Effect = { is: 'mail'; mailingId: number }

export type Advanced =
  { effects: Effect[]; next: Place; ended: null } | { effects: Effect[]; next: null; ended: Ending }

/** How somebody came out: by Finish, or on the way. */
export type Ending =
  | { state: 'finished'; why: null }
  | { state: 'left'; why: 'unsubscribed' | 'suppressed' | 'the step is gone' }

/**
 * Carries out the step at which somebody stands and says where they stand then. Nothing happens outside of the answer:
 * the same map, place, facts and time give the same. Who is unsubscribed or suppressed leaves before anything is done; who paused their mail
 * stays before it until the pause is over.
 */
export function advance(map: SequenceMap, place: Place, facts: InsideFacts, now: number): Advanced {
  if (facts.suppressed) return left('suppressed')
  if (!facts.subscribed) return left('unsubscribed')
  const step = map.steps[place.step]
  if (!step) return left('the step is gone')
  if (step.kind === 'mail' && facts.pausedUntil !== null && facts.pausedUntil > now)
    return { effects: [], next: { ...place, due: facts.pausedUntil }, ended: null }
  const effects: Effect[] = step.kind === 'mail' ? [{ is: 'mail', mailingId: step.mailingId }] : []
  const next = arriveAt(map, step.next, now, place.visit + 1)
  return next === null
    ? { effects, next, ended: { state: 'finished', why: null } }
    : { effects, next, ended: null }
}

/** The mail somebody is still to get who stands at a step, as things stand, with how long after it is due, ms. */
export function mailAhead(map: SequenceMap, step: string): { mailingId: number; after: number }[] {
  const found: { mailingId: number; after: number }[] = []
  let place: Place | null = { step, due: 0, visit: 0 }
  const facts = { subscribed: true, suppressed: false, pausedUntil: null }
  // A map is a line without circles; the limit holds for one that was made up.
  for (let steps = 0; place && steps < 1_000; steps++) {
    const at: number = place.due
    const { effects, next } = advance(map, place, facts, at)
    found.push(...effects.map(({ mailingId }) => ({ mailingId, after: at })))
    place = next
  }
  return found
}

/** Where somebody stands who comes in now; null where there is nothing to do for them. */
export function enter(map: SequenceMap, now: number): Place | null {
  return arriveAt(map, map.first, now, 0)
}

function arriveAt(map: SequenceMap, id: string | null, now: number, visit: number): Place | null {
  const step = id === null ? undefined : map.steps[id]
  if (id === null || !step) return null
  return { step: id, due: step.kind === 'wait' ? now + step.ms : now, visit }
}

function left(why: Extract<Ending, { state: 'left' }>['why']): Advanced {
  return { effects: [], next: null, ended: { state: 'left', why } }
}
