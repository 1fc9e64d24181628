import { liftOf, moneyThatWouldNotHaveCome } from '../../core/experiments'
import { wilson } from '../../core/results'
import {
  isEveryRound,
  judge,
  stepsInOrder,
  type GoalResults,
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
  type CountedGoal,
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
  const counted = goalsOf(map).map((goal) => {
    const within = Math.min(days, goal.within ?? days)
    return { goal, within, ...outcomeOfGroups(db, sequence, goal, within, now, those) }
  })
  const zone = readAccount(db)?.zone ?? 'UTC'
  const hours = new Array<number>(24).fill(0)
  for (const at of openTimes(db, { id: sequence.id, map }, now, narrowed && those))
    hours[hourOf(at, zone)]!++
  return {
    ...{ days, which, hours, oneIn: counted[0]!.oneIn },
    goals: counted.map(goalResults),
    left: narrowed?.left ?? leftBy(db, sequence.id),
    replied: repliedTo(db, { id: sequence.id, map }, narrowed && those),
    figures: narrowed && { ...narrowed.figures, map },
    splits: judgedSteps(map).map(([step, at]) => {
      const standing = standingOf(db, sequence.id, step, map)
      const since = standing?.since ?? 0
      const outcomes = outcomesOf(db, sequence.id, map, step, at, since, now, narrowed && those)
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

type Counted = CountedGoal & { within?: number | undefined }

/** The goals of a map, in its order; where there is none, that something was ordered. */
function goalsOf(map: SequenceMap): Counted[] {
  const goals = stepsInOrder(map).flatMap(({ id, step }) =>
    step.kind === 'goal'
      ? [{ step: id, when: step.when, worth: step.worth ?? null, within: step.within }]
      : [],
  )
  return goals.length ? goals : [{ step: null, when: { is: 'ordered' }, worth: null }]
}

/** A goal's figures, beside those held out where they could have reached it as well. */
function goalResults({
  goal: { step, when },
  within,
  led,
  heldOut,
}: { goal: Counted; within: number } & ReturnType<typeof outcomeOfGroups>): GoalResults {
  const isForAll = when.is === 'ordered' || when.is === 'did'
  const beside = { lift: liftOf(led, heldOut), money: moneyThatWouldNotHaveCome(led, heldOut) }
  return {
    ...{ step, when, days: within, isForAll },
    led: { of: led.of, reached: wilson(led.hits, led.of), money: led.money },
    heldOut: isForAll && heldOut.of > 0 ? { of: heldOut.of, ...beside } : null,
  }
}
