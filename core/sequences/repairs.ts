import { DAY } from '../time'
import type { Happening } from './happening'
import { insertStep, removeStep, removeWay, stepsInOrder, type SequenceMap, type Spot } from './map'
import { waysOf } from './steps'
import { USUAL_WAIT_DAYS } from './steps/mail'

/** What mends a mark. */
export type Repair =
  /** The step goes. */
  | { is: 'remove'; step: string }
  /** A side way of a fork goes, as long as it asks this. */
  | { is: 'remove way'; step: string; way: number; when: Happening }
  /** All steps go that nobody can reach. */
  | { is: 'remove lost' }
  /** A day lies between a step and what is behind it. */
  | { is: 'wait a day'; step: string }
  /** All mail that goes out whether or not there is room for it waits for room. */
  | { is: 'wait for room' }
  /** What is behind a hand-over waits until it was answered, a day at most. */
  | { is: 'wait for the answer'; step: string }

/** As the button says it. */
export const repairNames: Record<Repair['is'], string> = {
  remove: 'Remove it',
  'remove way': 'Remove the way',
  'remove lost': 'Remove what is never reached',
  'wait a day': 'Wait a day behind it',
  'wait for the answer': 'Wait for the answer',
  'wait for room': 'Let its mail wait for room',
}

/**
 * The map as it is when it is mended; where there is nothing to mend any more, the same.
 * @param id For a step that is put in.
 */
export function repaired(map: SequenceMap, repair: Repair, id: string): SequenceMap {
  if (repair.is === 'remove lost') {
    const met = new Set(stepsInOrder(map).map((one) => one.id))
    const steps = Object.entries(map.steps).filter(([one]) => met.has(one))
    return steps.length < Object.keys(map.steps).length
      ? { ...map, steps: Object.fromEntries(steps) }
      : map
  }
  if (repair.is === 'wait for room') {
    const past = Object.entries(map.steps).filter(
      ([, { kind, ...of }]) => kind === 'mail' && !('full' in of),
    )
    const waiting = past.map(([one, step]) => [
      one,
      { ...step, full: { waitDays: USUAL_WAIT_DAYS } },
    ])
    return past.length
      ? { ...map, steps: { ...map.steps, ...(Object.fromEntries(waiting) as typeof map.steps) } }
      : map
  }
  const step = map.steps[repair.step]
  if (!step) return map
  const behind: Spot = { step: repair.step, way: 0 }
  switch (repair.is) {
    case 'remove':
      return removeStep(map, repair.step)
    case 'remove way': {
      const asks = step.kind === 'fork' ? step.ways[repair.way - 1]?.when : undefined
      const isIt = JSON.stringify(asks) === JSON.stringify(repair.when)
      return isIt ? removeWay(map, repair.step, repair.way) : map
    }
    case 'wait a day':
      // Whichever way a mail is left by, there is one.
      return waysOf(step).length === 1
        ? insertStep(map, behind, id, { kind: 'wait', ms: DAY })
        : map
    case 'wait for the answer': {
      const what = { is: 'answered' as const, step: repair.step, taken: true }
      return insertStep(map, behind, id, {
        ...{ kind: 'wait', ms: DAY, until: { is: 'happens', what } },
        ways: [{ next: null }],
      })
    }
  }
}
