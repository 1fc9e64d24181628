import { DAY, type Day } from '../time'
import type { Happening } from './happening'
import { goesRound, reachableFrom, stepsInOrder, type SequenceMap } from './map'
import type { MapMark } from './mark'
import { asksOf } from './rules'
import { kindOfStep, waysOf, type Step } from './steps'

/** A step with what it is called in the map. */
interface Placed {
  id: string
  step: Step
}

/** What may well be meant, and often is not. */
export function mapCautions(map: SequenceMap, today: Day): MapMark[] {
  if (goesRound(map)) return []
  return stepsInOrder(map).flatMap((placed) => checks.flatMap((check) => check(map, placed, today)))
}

/** Each says what of one step may not be meant. */
const checks: ((map: SequenceMap, placed: Placed, today: Day) => MapMark[])[] = [
  hastyFork,
  closeMail,
  sameWays,
  neverTrue,
  askedTwice,
  alreadyAtGoal,
  goalAtStart,
  pastDay,
]

function hastyFork(map: SequenceMap, { id, step }: Placed): MapMark[] {
  const then = step.next === null ? undefined : map.steps[step.next]
  if (step.kind !== 'do' || then?.kind !== 'fork') return []
  return then.ways.some(({ when }) => when.is === 'answered' && when.step === id)
    ? [
        {
          title:
            'A fork asks what another program answered, right behind the step that hands over. Put a wait before it, until it answered.',
          step: step.next,
          repair: { is: 'wait for the answer', step: id },
        },
      ]
    : []
}

function closeMail(map: SequenceMap, { id, step }: Placed): MapMark[] {
  return step.kind === 'mail' && mailWithin(map, step, DAY)
    ? [
        {
          title: 'A mail is followed by another within a day.',
          step: id,
          repair: { is: 'wait a day', step: id },
        },
      ]
    : []
}

function sameWays(_map: SequenceMap, { id, step }: Placed): MapMark[] {
  const ways = waysOf(step)
  if (ways.length < 2 || ways.some(({ next }) => next !== ways[0]!.next)) return []
  const name = kindOfStep(step).name.toLowerCase()
  return [
    {
      title: `All ways of a ${name} lead to the same step.`,
      step: id,
      // A goal and a wait are of use without ways of their own.
      ...(step.kind === 'fork' || step.kind === 'split'
        ? { repair: { is: 'remove', step: id } }
        : {}),
    },
  ]
}

/** What asks about a mail that can't have gone out before. */
function neverTrue(map: SequenceMap, { id, step }: Placed): MapMark[] {
  const isBehind = (what: Happening) =>
    (what.is === 'opened' || what.is === 'clicked') &&
    what.mail !== null &&
    map.steps[what.mail] !== undefined &&
    !reachableFrom(map, what.mail).has(id)
  return asksOf(step).flatMap((what, n) =>
    isBehind(what)
      ? [
          {
            title: `A ${kindOfStep(step).name.toLowerCase()} asks about a mail that nobody got before it.`,
            step: id,
            ...repairOfWay(step, id, n + 1),
          },
        ]
      : [],
  )
}

/** A way of a fork that asks what a way before it asks. */
function askedTwice(_map: SequenceMap, { id, step }: Placed): MapMark[] {
  if (step.kind !== 'fork') return []
  const asked = step.ways.map(({ when }) => JSON.stringify(when))
  return asked.flatMap((one, n) =>
    asked.indexOf(one) < n
      ? [
          {
            title: `Way ${n + 1} of a fork asks what a way before it asks, so nobody goes by it.`,
            step: id,
            ...repairOfWay(step, id, n + 1),
          },
        ]
      : [],
  )
}

/** A way of a fork for those who have reached a goal that is still ahead, and so were taken there. */
function alreadyAtGoal(map: SequenceMap, { id, step }: Placed): MapMark[] {
  if (step.kind !== 'fork') return []
  const ahead = reachableFrom(map, id)
  const goals = stepsInOrder(map).flatMap((one) =>
    one.step.kind === 'goal' && !one.step.within && ahead.has(one.id)
      ? [JSON.stringify(one.step.when)]
      : [],
  )
  return step.ways.flatMap(({ when }, n) =>
    goals.includes(JSON.stringify(when))
      ? [
          {
            title: `Way ${n + 1} of a fork is for those who reached a goal behind it. They are taken there at once, so nobody goes by it.`,
            step: id,
            ...repairOfWay(step, id, n + 1),
          },
        ]
      : [],
  )
}

/** A goal that whoever comes in has reached. */
function goalAtStart({ start }: SequenceMap, { id, step }: Placed): MapMark[] {
  if (step.kind !== 'goal' || step.when.is !== 'fits') return []
  const asked = JSON.stringify(bare(step.when.rule))
  const isIt = (rule: unknown) => JSON.stringify(bare(rule)) === asked
  const isReached =
    (start.rule !== null && isIt(start.rule)) ||
    (start.by.length > 0 &&
      start.by.every(
        (by) =>
          by.is === 'segment' && by.comes && isIt({ kind: 'segment', segmentId: by.segmentId }),
      ))
  return isReached
    ? [{ title: 'Whoever comes in has reached the goal already, and comes to no step.', step: id }]
    : []
}

/** A rule without groups that hold one rule alone. */
function bare(rule: unknown): unknown {
  const { kind, of } = rule as { kind: string; of?: unknown[] }
  return (kind === 'all' || kind === 'any') && of?.length === 1 ? bare(of[0]) : rule
}

function pastDay(_map: SequenceMap, { id, step }: Placed, today: Day): MapMark[] {
  return step.kind === 'wait' && step.until?.is === 'day' && step.until.day < today
    ? [
        {
          title: `A wait is until ${step.until.day}, which is past: nobody waits there.`,
          step: id,
          repair: { is: 'remove', step: id },
        },
      ]
    : []
}

/** A way that nobody goes by can go; with the only one its fork. */
function repairOfWay(step: Step, id: string, way: number): Pick<MapMark, 'repair'> {
  if (step.kind !== 'fork') return {}
  return {
    repair:
      step.ways.length > 1
        ? { is: 'remove way', step: id, way, when: step.ways[way - 1]!.when }
        : { is: 'remove', step: id },
  }
}

/** Whether behind a step another mail comes within a time, by any of its ways. */
function mailWithin(map: SequenceMap, step: Step, ms: number): boolean {
  return waysOf(step).some(({ next }, way) => {
    const then = next === null ? undefined : map.steps[next]
    const left = ms - waited(step, way)
    if (!then || left <= 0) return false
    return then.kind === 'mail' || mailWithin(map, then, left)
  })
}

/** How long somebody stays at a step at least who goes on by a way, ms; until a day: nobody can say, so it is long enough. */
function waited(step: Step, way: number): number {
  if (step.kind !== 'wait') return 0
  // Mail that follows on what somebody did answers that, however soon it is.
  if (step.until?.is === 'happens') return way === 0 ? DAY : step.ms
  return step.until ? DAY : step.ms
}
