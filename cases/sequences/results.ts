import { liftOf, moneyThatWouldNotHaveCome } from '../../core/experiments'
import { wilson } from '../../core/results'
import {
  isEveryRound,
  judge,
  stepsInOrder,
  type SequenceMap,
  type SequenceResults,
  type Which,
} from '../../core/sequences'
import { hourOf } from '../../core/time'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import {
  figuresOf,
  HELD_OUT,
  isOneOf,
  judgedSteps,
  leftBy,
  mapOfVersion,
  openTimes,
  outcomeOfGroups,
  outcomesOf,
  repliedTo,
  standingOf,
  type Sequence,
} from '../../database/sequences'

/** What came of a sequence, or of some of its rounds: of its latest version, or the one that is asked for; compared over so many days. */
export function sequenceResults(
  db: Database,
  sequence: Sequence,
  { days, which }: { days: number; which: Which },
  now: number,
): SequenceResults {
  const version = which.version ?? sequence.version
  const map = version ? mapOfVersion(db, sequence.id, version) : sequence.map
  const those = isOneOf(db, which, now)
  const narrowed = isEveryRound(which) ? null : figuresOf(db, sequence.id, those, HELD_OUT)
  const goal = measuredGoal(map)
  const { led, heldOut, oneIn } = outcomeOfGroups(db, sequence, goal, days, now, those)
  const zone = readAccount(db)?.zone ?? 'UTC'
  const hours = new Array<number>(24).fill(0)
  for (const at of openTimes(db, { id: sequence.id, map }, now, narrowed && those))
    hours[hourOf(at, zone)]!++
  return {
    ...{ days, which, goal, oneIn, hours },
    left: narrowed?.left ?? leftBy(db, sequence.id),
    replied: repliedTo(db, { id: sequence.id, map }, narrowed && those),
    figures: narrowed && { ...narrowed.figures, map },
    led: { of: led.of, reached: wilson(led.hits, led.of), money: led.money },
    heldOut:
      heldOut.of > 0
        ? {
            of: heldOut.of,
            lift: liftOf(led, heldOut),
            money: moneyThatWouldNotHaveCome(led, heldOut),
          }
        : null,
    splits: judgedSteps(map).map(([step, at]) => {
      const standing = standingOf(db, sequence.id, step, map)
      const since = standing?.since ?? 0
      const outcomes = outcomesOf(db, sequence.id, map, step, at, since, now)
      const { compared } = judge(outcomes, 'hand')
      return {
        ...{ step, judged: at.judged, since },
        ways: compared.variants.map((one, way) => ({ ...one, of: outcomes[way]!.of })),
        ...{ leader: compared.leader, clear: compared.clear },
        ...{ shares: standing?.shares ?? null, by: standing?.by ?? null, at: standing?.at ?? null },
      }
    }),
  }
}

/** The first goal that those held out can reach as well: an order or an event; an order, where there is none. */
function measuredGoal(map: SequenceMap): SequenceResults['goal'] {
  for (const { step } of stepsInOrder(map))
    if (step.kind === 'goal' && (step.when.is === 'ordered' || step.when.is === 'did'))
      return step.when
  return { is: 'ordered' }
}
