import type { Rule } from '../segments'
import type { Happening } from './happening'
import { stepsInOrder, type SequenceMap } from './map'
import type { Step } from './steps'

/** The rules that a map asks: of who may come in, and of forks and goals that somebody can come by. */
export function rulesOf(map: SequenceMap): Rule[] {
  const { rule, out } = map.start
  const asked = happeningsOf(map)
  return [
    ...(rule ? [rule] : []),
    ...(out ? [out] : []),
    ...asked.flatMap((one) => (one.is === 'fits' ? [one.rule] : [])),
  ]
}

/** What is asked of somebody on their way through a map, at all steps that they can come by. */
export function happeningsOf(map: SequenceMap): Happening[] {
  return stepsInOrder(map).flatMap(({ step }) => asksOf(step))
}

/** What a step asks of somebody; a fork of each of its side ways, in their order. */
export function asksOf(step: Step): Happening[] {
  if (step.kind === 'fork') return step.ways.map(({ when }) => when)
  if (step.kind === 'wait') return step.until?.is === 'happens' ? [step.until.what] : []
  return step.kind === 'goal' ? [step.when] : []
}

/** The map with each of its rules as `change` gives it back. */
export function withRules(map: SequenceMap, change: (rule: Rule) => Rule): SequenceMap {
  const of = (one: Happening): Happening =>
    one.is === 'fits' ? { ...one, rule: change(one.rule) } : one
  const changed = (step: Step): Step => {
    if (step.kind === 'fork')
      return { ...step, ways: step.ways.map((way) => ({ ...way, when: of(way.when) })) }
    if (step.kind === 'wait' && step.until?.is === 'happens')
      return { ...step, until: { is: 'happens', what: of(step.until.what) } }
    return step.kind === 'goal' ? { ...step, when: of(step.when) } : step
  }
  const { rule, out } = map.start
  return {
    ...map,
    start: { ...map.start, rule: rule && change(rule), ...(out && { out: change(out) }) },
    steps: Object.fromEntries(
      Object.entries(map.steps).map(([id, step]) => [id, changed(step)] as const),
    ),
  }
}

/** What its waits ask of people: which of their fields, by key, and whether the hour at which they read most. */
export function askedByWaits(map: SequenceMap): { fields: string[]; bestHour: boolean } {
  const waits = Object.values(map.steps).flatMap((step) => (step.kind === 'wait' ? [step] : []))
  const fields = waits.flatMap(({ until, clock }) => [
    ...(until?.is === 'date' ? [until.of] : []),
    ...(clock === undefined ? [] : [clock]),
  ])
  return { fields: [...new Set(fields)], bestHour: waits.some(({ best }) => best === true) }
}
