import { DAY } from '../time'
import { reachableFrom, stepsInOrder, type SequenceMap } from './map'
import { kindOfStep, waysOf } from './steps'
import type { GoalStep } from './steps/goal'
import type { ArrivalFacts, Effect, InsideFacts } from './steps/kind'

/** Where somebody stands: the step that is carried out next, when, and which visit to it that is. */
export interface Place {
  step: string
  /** UTC milliseconds. */
  due: number
  /** When they came to it, UTC milliseconds. */
  arrived: number
  /** How many steps were carried out before; with the step it names each effect once and for all. */
  visit: number
}

/** What comes of carrying out a step. */
export interface Advanced {
  effects: Effect[]
  /** Where they stand then; null where they came out. */
  next: Place | null
  ended: Ending | null
  /** The step they went by, and by which of its ways; null where they stay, or left. Of a goal way 1: it was reached. */
  passed: { step: string; way: number } | null
}

/** How somebody came out: by Finish or the goal, or on the way. */
export type Ending =
  | { state: 'finished'; why: null | 'goal' }
  | { state: 'left'; why: 'unsubscribed' | 'suppressed' | 'out by rule' | 'the step is gone' }

/**
 * Carries out the step at which somebody stands and says where they stand then. Nothing happens outside of the answer:
 * the same map, place, facts and time give the same. Who is unsubscribed or suppressed leaves before anything is done; who
 * has reached a goal that is still ahead of them goes there first, unless they fit the rule by which people are out.
 */
export function advance(map: SequenceMap, place: Place, facts: InsideFacts, now: number): Advanced {
  if (facts.suppressed) return left('suppressed')
  if (!facts.subscribed) return left('unsubscribed')
  const step = map.steps[place.step]
  if (!step) return left('the step is gone')
  const { out } = map.start
  if (out && facts.holds({ is: 'fits', rule: out })) return left('out by rule')
  const goal = goalsAhead(map, place.step).find((id) => {
    const ahead = map.steps[id]!
    if (ahead.kind !== 'goal') return false
    return facts.holds(ahead.when, ahead.within && ahead.within * DAY)
  })
  if (goal !== undefined) return reachGoal(map, goal, place, facts, now)
  const came = kindOfStep(step).carryOut(step, place.step, facts, now, place.arrived)
  if ('stay' in came)
    return { effects: [], next: { ...place, due: came.stay }, ended: null, passed: null }
  const { effects, way, back } = came
  const next = arriveAt(map, back ?? waysOf(step)[way]!.next, now, place.visit + 1, facts)
  const passed = { step: place.step, way }
  return next === null
    ? { effects, next, ended: { state: 'finished', why: null }, passed }
    : { effects, next, ended: null, passed }
}

function reachGoal(
  map: SequenceMap,
  id: string,
  place: Place,
  facts: InsideFacts,
  now: number,
): Advanced {
  const goal = map.steps[id] as GoalStep
  const passed = { step: id, way: 1 }
  const next = goal.ways ? goal.ways[0]!.next : goal.next
  const on = goal.out ? null : arriveAt(map, next, now, place.visit + 1, facts)
  return on === null
    ? { effects: [], next: null, ended: { state: 'finished', why: 'goal' }, passed }
    : { effects: [], next: on, ended: null, passed }
}

/** The goals at or behind a step, in the order of the map. */
function goalsAhead(map: SequenceMap, id: string): string[] {
  let goals = goalsOf.get(map)
  if (!goals)
    goalsOf.set(
      map,
      (goals = stepsInOrder(map).flatMap((one) => (one.step.kind === 'goal' ? [one.id] : []))),
    )
  if (goals.length === 0) return goals
  const ahead = reachableFrom(map, id)
  return goals.filter((goal) => ahead.has(goal))
}
const goalsOf = new WeakMap<SequenceMap, string[]>()

/**
 * The mail somebody is still to get who stands at a step, with how long after it is due, ms: as things stand, which is along
 * the main way of every fork, and without reaching a goal.
 */
export function mailAhead(map: SequenceMap, step: string): { mailingId: number; after: number }[] {
  const found: { mailingId: number; after: number }[] = []
  let place: Place | null = { step, due: 0, arrived: 0, visit: 0 }
  const facts: InsideFacts = {
    ...{ subscribed: true, suppressed: false, pausedUntil: null, zone: 'UTC' },
    ...{ holds: () => false, lot: () => 1, sharesOf: () => null, fieldOf: () => null },
    ...{ bestHour: () => 0, wentBack: () => Infinity },
  }
  // The limit holds for a map that goes round, which none does that runs.
  for (let steps = 0; place && steps < 1_000; steps++) {
    const at: number = place.due
    const { effects, next } = advance(map, place, facts, at)
    for (const effect of effects)
      if (effect.is === 'mail') found.push({ mailingId: effect.mailingId, after: at })
    place = next
  }
  return found
}

/** Where somebody stands who comes in now; null where there is nothing to do for them. */
export function enter(map: SequenceMap, now: number, facts: ArrivalFacts): Place | null {
  return arriveAt(map, map.first, now, 0, facts)
}

function arriveAt(
  map: SequenceMap,
  id: string | null,
  now: number,
  visit: number,
  facts: ArrivalFacts,
): Place | null {
  const step = id === null ? undefined : map.steps[id]
  if (id === null || !step) return null
  const due = kindOfStep(step).due?.(step, now, facts) ?? now
  return { step: id, due, arrived: now, visit }
}

function left(why: Extract<Ending, { state: 'left' }>['why']): Advanced {
  return { effects: [], next: null, ended: { state: 'left', why }, passed: null }
}
