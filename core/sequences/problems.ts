import { goesRound, reachableFrom, stepsInOrder, type SequenceMap } from './map'
import type { MapMark } from './mark'
import { startLacks } from './starts'
import { kindOfStep, waysOf, type Step } from './steps'

/** What keeps a sequence from running; nothing where it may run. */
export function mapProblems(map: SequenceMap, listId: number | null): MapMark[] {
  const order = stepsInOrder(map)
  const around = {
    isMail: (id: string) => map.steps[id]?.kind === 'mail',
    handsOver(id: string) {
      const step = map.steps[id]
      return step?.kind === 'do' && step.acts.some(({ is }) => is === 'hand')
    },
    leadsTo(id: string, step: object) {
      if (!map.steps[id] || map.steps[id] === step) return false
      return [...reachableFrom(map, id)].some((one) => map.steps[one] === step)
    },
  }
  return [
    ...map.start.by.flatMap((start) => startLacks(start) ?? []).map(ofStart),
    ...(map.start.rule?.kind === 'any' && map.start.rule.of.length === 0
      ? [ofStart('Nobody may come in: say anew who may.')]
      : []),
    ...(listId === null ? [ofStart('Choose the list on whose behalf it writes.')] : []),
    ...(order.some(({ step }) => step.kind === 'mail' || step.kind === 'do')
      ? []
      : [ofStart('There is no mail in it yet.')]),
    ...(goesRound(map) ? [ofStart('It goes round in a circle: nobody would ever finish.')] : []),
    ...lost(map, order.length),
    ...order.flatMap(({ id, step }): MapMark[] => [
      ...(step.kind === 'wait' && leadsNowhere(step)
        ? [
            {
              title: 'A last wait has nothing behind it. Remove it, or put a mail behind it.',
              step: id,
              repair: { is: 'remove' as const, step: id },
            },
          ]
        : []),
      ...(kindOfStep(step).problems?.(step, around) ?? []).map((title) => ({ title, step: id })),
    ]),
  ]
}

const ofStart = (title: string): MapMark => ({ title, step: null })

function lost(map: SequenceMap, reached: number): MapMark[] {
  const many = Object.keys(map.steps).length - reached
  if (many === 0) return []
  const title = many === 1 ? 'One step is never reached.' : `${many} steps are never reached.`
  return [{ title, step: null, repair: { is: 'remove lost' } }]
}

const leadsNowhere = (step: Step) => waysOf(step).every(({ next }) => next === null)
