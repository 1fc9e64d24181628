import { doing, type DoStep } from './do'
import { fork, type ForkStep } from './fork'
import { goal, type GoalStep } from './goal'
import type { StepKind, Way } from './kind'
import { mail, type MailStep } from './mail'
import { restOf, split, type SplitStep } from './split'
import { wait, type WaitStep } from './wait'

export type Step = MailStep | WaitStep | ForkStep | SplitStep | DoStep | GoalStep
/** A step but for where it leads. */
export type NewStep = {
  [K in Step['kind']]: Omit<Extract<Step, { kind: K }>, 'next'>
}[Step['kind']]

/** Every kind of step. Another is a file, a line here, and its settings on the page. */
export const stepKinds: { [K in Step['kind']]: StepKind<Extract<Step, { kind: K }>> } = {
  ...{ mail, wait, fork, split },
  do: doing,
  goal,
}
export const kindOfStep = (step: Step) => stepKinds[step.kind] as StepKind

/** The ways on, the main one first. */
export function waysOf(step: Step): Way[] {
  switch (step.kind) {
    case 'fork':
      return [
        { next: step.next, words: 'everyone else' },
        ...step.ways.map(({ next }, n) => ({
          next,
          words: step.ways.length > 1 ? `way ${n + 1}` : 'yes',
        })),
      ]
    case 'split':
      return [restOf(step.ways), ...step.ways.map(({ share }) => share)].map((share, n) => ({
        next: n === 0 ? step.next : step.ways[n - 1]!.next,
        words: `${'ABCDE'[n]} ${share / 10}%`,
      }))
    default:
      return [{ next: step.next, words: '' }]
  }
}

/** The step with each of its ways leading where `to` says. */
export function leadTo(step: Step, to: (next: string | null, way: number) => string | null): Step {
  const next = to(step.next, 0)
  return 'ways' in step
    ? ({
        ...step,
        next,
        ways: step.ways.map((way, n) => ({ ...way, next: to(way.next, n + 1) })),
      } as Step)
    : { ...step, next }
}
