import { readRule, type Rule } from '../segments'
import { accountsSender, readOwnSender, type OwnSender } from '../senders'
import { isStepId } from './happening'
import { freshStarts, never, readAgain, readStarting, type Again, type Starting } from './starts'
import {
  kindOfStep,
  leadTo,
  mailingsOfStep,
  stepKinds,
  waysOf,
  type NewStep,
  type Step,
} from './steps'

/**
 * A map of steps. `first` is the step after Start; each step names those after it, and null is Finish. Ways fork and come
 * together again. A map is data: steps refer to each other by id, and to what is on file by number.
 */
export interface SequenceMap {
  start: Start
  first: string | null
  steps: Readonly<Record<string, Step>>
}

/** Who comes in: by any of some starts, as often as `again` says. Who does not fit the rule stays out. */
export interface Start {
  by: readonly Starting[]
  again: Again
  rule: Rule | null
  /** Whether who fits a start already comes in when it begins to hold: see `alreadyThere`. */
  already?: true
  /** Whoever comes to fit it is out before the next step. */
  out?: Rule
  /** The share of those who come in who get nothing and are compared with the others, in tenths of a percent. */
  heldOut?: number
  /** Whom its mails come from, where that is not the account's sender. */
  sender?: OwnSender
}

export const emptyMap: SequenceMap = {
  start: { by: [freshStarts.joined], again: never, rule: null },
  first: null,
  steps: {},
}

/** As many steps as one can still read. */
const MOST_STEPS = 100
const MOST_STARTS = 6
export const LONGEST_NOTE = 500
/** Half of them. */
export const MOST_HELD_OUT = 500

/** Reads a map from JSON that came from outside; null where it is none. */
export function readMap(json: unknown): SequenceMap | null {
  if (!isObject(json) || !isObject(json.steps)) return null
  const start = readStart(json.start)
  const entries = Object.entries(json.steps).map(([id, step]) => [id, readStep(step)] as const)
  const known = new Set(entries.map(([id]) => id))
  const leads = (next: string | null) => next === null || (isStepId(next) && known.has(next))
  const first = (json.first ?? null) as string | null
  return start &&
    entries.length <= MOST_STEPS &&
    entries.every(
      ([id, step]) =>
        isStepId(id) && step !== null && waysOf(step).every(({ next }) => leads(next)),
    ) &&
    leads(first)
    ? { start, first, steps: Object.fromEntries(entries) as Record<string, Step> }
    : null
}

function readStart(json: unknown): Start | null {
  if (!isObject(json)) return null
  // Before there could be several there was one.
  const given = json.by ?? [json.when]
  if (!Array.isArray(given) || given.length > MOST_STARTS) return null
  const by = given.map(readStarting)
  const again = readAgain(json.again)
  const rule = json.rule == null ? null : readRule(json.rule)
  if (json.rule != null && rule === null) return null
  const out = json.out == null ? null : readRule(json.out)
  if (json.out != null && out === null) return null
  const heldOut = json.heldOut ?? 0
  if (
    !Number.isSafeInteger(heldOut) ||
    (heldOut as number) < 0 ||
    (heldOut as number) > MOST_HELD_OUT
  )
    return null
  const own = readOwnSender(json.sender)
  const sender = JSON.stringify(own) === JSON.stringify(accountsSender) ? {} : { sender: own }
  return again && by.every((one) => one !== null)
    ? {
        ...{ by: by as Starting[], again, rule },
        ...(json.already === true && { already: true as const }),
        ...(out && { out }),
        ...(heldOut ? { heldOut: heldOut as number } : {}),
        ...sender,
      }
    : null
}

function readStep(json: unknown): Step | null {
  if (!isObject(json) || typeof json.kind !== 'string' || !Object.hasOwn(stepKinds, json.kind))
    return null
  const own = kindOfStep(json as unknown as Step).read(json)
  const { note } = json
  if (note != null && (typeof note !== 'string' || note.length > LONGEST_NOTE)) return null
  return own && ({ ...own, ...(note ? { note } : {}), next: json.next ?? null } as Step)
}

function isObject(json: unknown): json is Record<string, unknown> {
  return typeof json === 'object' && json !== null && !Array.isArray(json)
}

/**
 * The steps that somebody can come by, each behind all that lead to it; of a step's ways the main one is followed first. In
 * a map with a circle one of its steps stands before what leads to it.
 */
export function stepsInOrder(map: SequenceMap): { id: string; step: Step }[] {
  const met = new Set<string>()
  const behind: { id: string; step: Step }[] = []
  const visit = (id: string | null) => {
    if (id === null || met.has(id)) return
    met.add(id)
    const step = map.steps[id]!
    // What is met last stands first, so the main way is followed last.
    for (const { next } of waysOf(step).toReversed()) visit(next)
    behind.push({ id, step })
  }
  visit(map.first)
  return behind.reverse()
}

/** Whether somebody could come by a step twice. */
export function goesRound(map: SequenceMap): boolean {
  const place = new Map(stepsInOrder(map).map(({ id }, n) => [id, n]))
  return [...place].some(([id, n]) =>
    waysOf(map.steps[id]!).some(({ next }) => next !== null && place.get(next)! <= n),
  )
}

/** What can still come behind a step, itself included. */
export function reachableFrom(map: SequenceMap, id: string): ReadonlySet<string> {
  const known = reached.get(map) ?? new Map<string, Set<string>>()
  reached.set(map, known)
  let found = known.get(id)
  if (!found)
    known.set(id, (found = new Set(stepsInOrder({ ...map, first: id }).map((one) => one.id))))
  return found
}
const reached = new WeakMap<SequenceMap, Map<string, Set<string>>>()

/** Where on the map something is put: on a way out of a step; `step` null: behind Start. */
export interface Spot {
  step: string | null
  way: number
}

/** The map with a step put in on a way. All of a new fork's ways lead on to where that way led. */
export function insertStep(
  map: SequenceMap,
  at: Spot | string | null,
  id: string,
  step: NewStep,
): SequenceMap {
  const spot = typeof at === 'object' && at !== null ? at : { step: at, way: 0 }
  const before = spot.step === null ? null : map.steps[spot.step]!
  const next = before ? waysOf(before)[spot.way]!.next : map.first
  const added = leadTo({ ...step, next } as Step, () => next)
  const steps: Record<string, Step> = { ...map.steps, [id]: added }
  if (before === null) return { ...map, first: id, steps }
  const led = leadTo(before, (to, way) => (way === spot.way ? id : to))
  return { ...map, steps: { ...steps, [spot.step!]: led } }
}

/** The map without a step, and without what only its side ways led to; what led to it leads on along its main way. */
export function removeStep(map: SequenceMap, id: string): SequenceMap {
  const gone = map.steps[id]
  if (!gone) return map
  const past = (next: string | null) => (next === id ? gone.next : next)
  const steps = Object.fromEntries(
    Object.entries(map.steps)
      .filter(([one]) => one !== id)
      .map(([one, step]) => [one, leadTo(step, past)] as const),
  )
  const kept = { ...map, first: past(map.first), steps }
  return 'ways' in gone ? withoutLost(map, kept) : kept
}

/** The steps that a side way of a step has for itself, along its main ways; and where it comes together with the others. */
export function sideWay(
  map: SequenceMap,
  id: string,
  way: number,
): { steps: string[]; joins: string | null } {
  const ways = waysOf(map.steps[id]!)
  const others = new Set(
    ways.flatMap(({ next }, n) =>
      n === way || next === null ? [] : [...reachableFrom(map, next)],
    ),
  )
  const steps: string[] = []
  let on = ways[way]!.next
  while (on !== null && !others.has(on) && !steps.includes(on)) {
    steps.push(on)
    on = waysOf(map.steps[on]!)[0]!.next
  }
  return { steps, joins: on }
}

/** Where a side way may come together with the others: at what the main way leads to, or (null) at Finish. */
export function joinsFor(map: SequenceMap, id: string): string[] {
  const main = map.steps[id]!.next
  return main === null ? [] : stepsInOrder({ ...map, first: main }).map((one) => one.id)
}

/** The map with a side way that comes together with the others at another step; null: at Finish. */
export function joinAt(
  map: SequenceMap,
  id: string,
  way: number,
  target: string | null,
): SequenceMap {
  const last = sideWay(map, id, way).steps.at(-1)
  const [from, of] = last === undefined ? [id, way] : [last, 0]
  const led = leadTo(map.steps[from]!, (next, n) => (n === of ? target : next))
  return { ...map, steps: { ...map.steps, [from]: led } }
}

/** The map with a step's side way taken away, and with it what only that way led to. */
export function removeWay(map: SequenceMap, id: string, way: number): SequenceMap {
  const step = map.steps[id]
  if (!step || !('ways' in step) || !step.ways || step.ways.length < 2) return map
  const ways = (step.ways as { next: string | null }[]).filter((_, n) => n !== way - 1)
  const kept = { ...map, steps: { ...map.steps, [id]: { ...step, ways } as Step } }
  return withoutLost(map, kept)
}

/** The map with a step as it is now; what only a way led to that it has no more is gone. */
export function changeStep(map: SequenceMap, id: string, step: Step): SequenceMap {
  return withoutLost(map, { ...map, steps: { ...map.steps, [id]: step } })
}

/** What could be reached before and can't be now is gone, too. */
function withoutLost(before: SequenceMap, map: SequenceMap): SequenceMap {
  const could = new Set(stepsInOrder(before).map(({ id }) => id))
  const can = new Set(stepsInOrder(map).map(({ id }) => id))
  const steps = Object.entries(map.steps).filter(([id]) => can.has(id) || !could.has(id))
  return { ...map, steps: Object.fromEntries(steps) }
}

/** The mailings of a map, in the order of its steps, and of each the versions that are tried. */
export function mailingsOfMap(map: SequenceMap): number[] {
  return stepsInOrder(map).flatMap(({ step }) => mailingsOfStep(step))
}
