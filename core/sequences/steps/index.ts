import type { Drawn, Judged } from './by-lot'
import { doing, type DoStep } from './do'
import { fork, type ForkStep } from './fork'
import { goal, type GoalStep } from './goal'
import type { StepKind, Way } from './kind'
import { mail, mailingsOfMail, type MailStep } from './mail'
import { split, type SplitStep } from './split'
import { wait, type WaitStep } from './wait'

/** `note`: what those who draw it say of it to each other. */
export type Step = (MailStep | WaitStep | ForkStep | SplitStep | DoStep | GoalStep) & {
  note?: string
}
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
  return kindOfStep(step).ways?.(step) ?? [{ next: step.next, words: '' }]
}

/** The mailings that go out at a step: of a mail, each of its versions, the main one first. */
export const mailingsOfStep = (step: Step): number[] =>
  step.kind === 'mail' ? mailingsOfMail(step) : []

/** What is drawn by lot at a step besides the main one: ways of a split, versions of a mail. */
export const drawnAt = (step: Step): readonly Drawn[] => kindOfStep(step).drawn?.(step) ?? []

/** A step at which what is drawn by lot is judged by what comes of it. */
export type JudgedStep = (SplitStep | MailStep) & { judged: Judged }
export const isJudged = (step: Step): step is JudgedStep & Step =>
  'judged' in step && step.judged !== undefined && drawnAt(step).length > 0

/** The step with each of its ways leading where `to` says. */
export function leadTo(step: Step, to: (next: string | null, way: number) => string | null): Step {
  const next = to(step.next, 0)
  return 'ways' in step && step.ways
    ? ({
        ...step,
        next,
        ways: step.ways.map((way, n) => ({ ...way, next: to(way.next, n + 1) })),
      } as Step)
    : { ...step, next }
}
