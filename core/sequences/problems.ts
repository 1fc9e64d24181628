import { DAY } from '../time'
import { goesRound, stepsInOrder, type SequenceMap } from './map'
import { startLacks } from './starts'
import { kindOfStep, waysOf, type Step } from './steps'

/** What keeps a sequence from running, in sentences; none where it may run. */
export function mapProblems(map: SequenceMap, listId: number | null): string[] {
  const problems = map.start.by.flatMap((start) => startLacks(start) ?? [])
  const { rule } = map.start
  if (rule?.kind === 'any' && rule.of.length === 0)
    problems.push('Nobody may come in: say anew who may.')
  if (listId === null) problems.push('Choose the list on whose behalf it writes.')
  const order = stepsInOrder(map)
  if (!order.some(({ step }) => step.kind === 'mail' || step.kind === 'do'))
    problems.push('There is no mail in it yet.')
  if (goesRound(map)) problems.push('It goes round in a circle: nobody would ever finish.')
  const lost = Object.keys(map.steps).length - order.length
  if (lost > 0)
    problems.push(lost === 1 ? 'One step is never reached.' : `${lost} steps are never reached.`)
  if (order.some(({ step }) => step.kind === 'wait' && leadsNowhere(step)))
    problems.push('A last wait has nothing behind it. Remove it, or put a mail behind it.')
  const around = {
    isMail: (id: string) => map.steps[id]?.kind === 'mail',
    handsOver(id: string) {
      const step = map.steps[id]
      return step?.kind === 'do' && step.acts.some(({ is }) => is === 'hand')
    },
  }
  return [
    ...problems,
    ...order.flatMap(({ step }) => kindOfStep(step).problems?.(step, around) ?? []),
  ]
}

/** What may well be meant, and often is not, in sentences. */
export function mapCautions(map: SequenceMap): string[] {
  if (goesRound(map)) return []
  const order = stepsInOrder(map)
  const close = order.filter(
    ({ step }) => step.kind === 'mail' && mailWithin(map, step, DAY),
  ).length
  const same = order.filter(({ step }) => {
    const ways = waysOf(step)
    return ways.length > 1 && ways.every(({ next }) => next === ways[0]!.next)
  })
  const hasty = order.filter(({ id, step }) => {
    const { next } = step
    const then = next === null ? undefined : map.steps[next]
    return (
      step.kind === 'do' &&
      then?.kind === 'fork' &&
      then.ways.some(({ when }) => when.is === 'answered' && when.step === id)
    )
  }).length
  return [
    ...(hasty > 0
      ? [
          'A fork asks what another program answered, right behind the step that hands over. Put a wait before it, until it answered.',
        ]
      : []),
    ...(close > 0
      ? [
          close === 1
            ? 'One mail is followed by another within a day.'
            : `${close} mails are followed by another within a day.`,
        ]
      : []),
    ...(same.length > 0
      ? [
          same.length === 1
            ? `All ways of a ${kindOfStep(same[0]!.step).name.toLowerCase()} lead to the same step.`
            : `Of ${same.length} steps all ways lead to the same step.`,
        ]
      : []),
  ]
}

const leadsNowhere = (step: Step) => waysOf(step).every(({ next }) => next === null)

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
