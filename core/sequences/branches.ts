import { insertStep, removeStep, type SequenceMap, type Spot } from './map'
import { leadTo, type Step } from './steps'

/** A step with what only its side ways lead to, to be put in elsewhere. Ways that leave it lead on to whatever comes behind. */
export interface Branch {
  /** The step that leads to all others of it. */
  id: string
  steps: Readonly<Record<string, Step>>
}

/** A step of a map with its branch: what goes when it is removed. */
export function branchAt(map: SequenceMap, id: string): Branch {
  const left = removeStep(map, id).steps
  const steps = Object.entries(map.steps).filter(([one]) => !(one in left))
  return { id, steps: Object.fromEntries(steps) }
}

/**
 * The map with a branch put in on a way. Its ways lead on to where that way led, but for side ways that went past all else
 * to Finish: those still do.
 */
export function putBranch(map: SequenceMap, spot: Spot, { id, steps }: Branch): SequenceMap {
  const root = steps[id]!
  const put = insertStep(map, spot, id, root)
  const { next } = put.steps[id]!
  const lead = (to: string | null) =>
    to !== null && to in steps ? to : to === null && root.next !== null ? null : next
  const own = Object.entries(steps).map(([one, step]) => [
    one,
    leadTo(step, (to, way) => (one === id && way === 0 ? next : lead(to))),
  ])
  return { ...put, steps: { ...put.steps, ...(Object.fromEntries(own) as Record<string, Step>) } }
}

/**
 * The map with a step and its branch taken from where they are and put in on a way. What would be put into itself stays
 * where it is.
 */
export function moveBranch(map: SequenceMap, id: string, spot: Spot): SequenceMap {
  if (!map.steps[id]) return map
  const branch = branchAt(map, id)
  const isInside = spot.step !== null && spot.step in branch.steps
  return isInside ? map : putBranch(removeStep(map, id), spot, branch)
}

/** The same branch with other names for its steps, also where one of them asks for another: "clicked in that mail". */
export function renamedBranch(branch: Branch, nameFor: (id: string) => string): Branch {
  const names = new Map(Object.keys(branch.steps).map((id) => [id, nameFor(id)]))
  const named = (id: string) => names.get(id) ?? id
  const steps = Object.entries(branch.steps).map(([id, step]) => {
    const led = leadTo(step, (next) => (next === null ? null : named(next)))
    return [named(id), asking(backTo(led, named), named)]
  })
  return { id: named(branch.id), steps: Object.fromEntries(steps) as Record<string, Step> }
}

/** A wait that goes back, to a step by its other name. */
function backTo(step: Step, named: (id: string) => string): Step {
  if (step.kind !== 'wait' || !step.back) return step
  return { ...step, back: { ...step.back, to: named(step.back.to) } }
}

/** A step that asks for steps by other names. */
function asking(step: Step, named: (id: string) => string): Step {
  const text = JSON.stringify(step, (key, value: unknown) =>
    (key === 'mail' || key === 'step') && typeof value === 'string' ? named(value) : value,
  )
  return JSON.parse(text) as Step
}
