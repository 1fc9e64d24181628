import { readRule, type Rule } from '../segments'
import { accountsSender, readOwnSender, type OwnSender } from '../senders'

/**
 * A map of steps. `first` is the step after Start; each step names the one after it, and null is Finish. A map
 * is data: steps refer to each other by id, and to what is on file by number.
 */
export interface SequenceMap {
  start: Start
  first: string | null
  steps: Readonly<Record<string, Step>>
}

/** What lets somebody in: joining the sequence's list, or an event by its name. Who does not fit the rule stays out. */
export interface Start {
  when: { is: 'joined' } | { is: 'event'; name: string }
  rule: Rule | null
  /** Whom its mails come from, where that is not the account's sender. */
  sender?: OwnSender
}

export type Step = MailStep | WaitStep

/** A mailing of the sequence's own, whose letter goes out to everybody who comes by. */
export interface MailStep {
  kind: 'mail'
  mailingId: number
  next: string | null
}

export interface WaitStep {
  kind: 'wait'
  /** Milliseconds. */
  ms: number
  next: string | null
}

export const emptyMap: SequenceMap = {
  start: { when: { is: 'joined' }, rule: null },
  first: null,
  steps: {},
}

/** As many steps as one can still read. */
const MOST_STEPS = 100
/** Ten years; longer than anybody waits for a letter. */
const LONGEST_WAIT = 3_660 * 24 * 60 * 60_000

/** Reads a map from JSON that came from outside; null where it is none. */
export function readMap(json: unknown): SequenceMap | null {
  if (!isObject(json) || !isObject(json.steps)) return null
  const start = readStart(json.start)
  const entries = Object.entries(json.steps).map(([id, step]) => [id, readStep(step)] as const)
  const known = new Set(entries.map(([id]) => id))
  const leads = (next: string | null) => next === null || known.has(next)
  const first = json.first ?? null
  return start &&
    entries.length <= MOST_STEPS &&
    entries.every(([id, step]) => isId(id) && step !== null && leads(step.next)) &&
    (first === null || isId(first)) &&
    leads(first)
    ? { start, first, steps: Object.fromEntries(entries) as Record<string, Step> }
    : null
}

function readStart(json: unknown): Start | null {
  if (!isObject(json) || !isObject(json.when)) return null
  const { is, name } = json.when
  const rule = json.rule == null ? null : readRule(json.rule)
  if (json.rule != null && rule === null) return null
  const own = readOwnSender(json.sender)
  const sender = JSON.stringify(own) === JSON.stringify(accountsSender) ? {} : { sender: own }
  if (is === 'joined') return { when: { is }, rule, ...sender }
  return is === 'event' && typeof name === 'string' && name.trim() !== '' && name.length <= 100
    ? { when: { is, name }, rule, ...sender }
    : null
}

function readStep(json: unknown): Step | null {
  if (!isObject(json)) return null
  const next = json.next ?? null
  if (next !== null && !isId(next)) return null
  if (json.kind === 'mail')
    return Number.isSafeInteger(json.mailingId) && (json.mailingId as number) > 0
      ? { kind: 'mail', mailingId: json.mailingId as number, next }
      : null
  return json.kind === 'wait' &&
    Number.isSafeInteger(json.ms) &&
    (json.ms as number) > 0 &&
    (json.ms as number) <= LONGEST_WAIT
    ? { kind: 'wait', ms: json.ms as number, next }
    : null
}

function isObject(json: unknown): json is Record<string, unknown> {
  return typeof json === 'object' && json !== null && !Array.isArray(json)
}
function isId(value: unknown): value is string {
  return typeof value === 'string' && /^[a-z0-9-]{1,40}$/.test(value)
}

/** The steps in the order in which somebody comes by them; a step that is met again ends the line. */
export function lineOf(map: SequenceMap): { id: string; step: Step }[] {
  const line: { id: string; step: Step }[] = []
  const met = new Set<string>()
  for (let id = map.first; id !== null && !met.has(id); id = map.steps[id]!.next) {
    met.add(id)
    line.push({ id, step: map.steps[id]! })
  }
  return line
}

/** The map with a step put in behind another, or behind Start where `after` is null. */
export function insertStep(
  map: SequenceMap,
  after: string | null,
  id: string,
  step: Omit<MailStep, 'next'> | Omit<WaitStep, 'next'>,
): SequenceMap {
  const next = after === null ? map.first : map.steps[after]!.next
  const steps: Record<string, Step> = { ...map.steps, [id]: { ...step, next } as Step }
  if (after === null) return { ...map, first: id, steps }
  return { ...map, steps: { ...steps, [after]: { ...map.steps[after]!, next: id } } }
}

/** The map without a step; whatever led to it leads to the one behind it. */
export function removeStep(map: SequenceMap, id: string): SequenceMap {
  const gone = map.steps[id]
  if (!gone) return map
  const past = (next: string | null) => (next === id ? gone.next : next)
  const steps = Object.entries(map.steps)
    .filter(([one]) => one !== id)
    .map(([one, step]) => [one, { ...step, next: past(step.next) }] as const)
  return { ...map, first: past(map.first), steps: Object.fromEntries(steps) }
}

/** The mailings of a map, in the order of its line. */
export function mailingsOfMap(map: SequenceMap): number[] {
  return lineOf(map).flatMap(({ step }) => (step.kind === 'mail' ? [step.mailingId] : []))
}
