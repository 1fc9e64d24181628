import { variantName } from '../../core/dispatch'
import {
  compareVariants,
  curvesOf,
  liftOf,
  type DecidedOn,
  type TestResults,
  type WorthResults,
} from '../../core/experiments'
import { wilson } from '../../core/results'
import {
  goalCounts,
  goalOpenUntil,
  moneyOfMailing,
  outcomesOf,
  variantCounts,
} from '../../database/results'
import type { Database } from '../../database'
import { goalSegment, type Mailing, planOf, variantsOf } from '../../database/mailings'
import { letterOf } from '../../database/letters'
import { segmentById } from '../../database/segments'

/** Null where nothing is tried, or nobody of the test has got it yet. */
export function testResults(db: Database, mailing: Mailing, now: number): TestResults | null {
  const { test, goal } = planOf(mailing)
  if (!test || mailing.started_at === null) return null
  const counts = variantCounts(db, mailing, goal)
  if (counts.length < 2 || !counts.some(({ delivered }) => delivered > 0)) return null
  const outcomes = outcomesOf(counts, test.measure)
  const compared = compareVariants(outcomes)
  const sent = variantsOf(db, mailing.id)
  const variants = counts.map((one, i) => {
    const outcome = outcomes[i]!
    const span = outcome.kind === 'rate' ? wilson(outcome.hits, outcome.of) : { low: 0, high: 0 }
    const variant = sent[one.variant]!
    const words = {
      subject: letterOf(db, variant.letter_id).subject,
      sender: variant.sender_name,
      letter: letterOf(db, variant.letter_id).subject,
      hour: `${String(variant.hour ?? 0).padStart(2, '0')}:00`,
    }[test.of]
    const { low, high } = span
    return { ...one, name: variantName(one.variant), words, low, high, ...compared.variants[i]! }
  })
  const second = [...variants.keys()]
    .filter((i) => i !== compared.leader)
    .sort((a, b) => variants[b]!.value - variants[a]!.value)[0]!
  const [one, other] = [outcomes[compared.leader]!, outcomes[second]!]
  return {
    of: test.of,
    measure: test.measure,
    variants,
    leader: compared.leader,
    clear: compared.clear,
    ahead: one.kind === 'rate' && other.kind === 'rate' ? liftOf(one, other) : null,
    curves: curvesOf(outcomes),
    winner: mailing.winner,
    decidedAt: mailing.decided_at,
    decidedBy: mailing.decided_by,
    goalOpenUntil: test.measure === 'goal' && goal ? goalOpenUntil(db, mailing, goal, now) : null,
    decidedOn: mailing.decided_on ? (JSON.parse(mailing.decided_on) as DecidedOn) : null,
  }
}

/** What a mailing was for, and what came of that. */
export function worthResults(db: Database, mailing: Mailing, now: number): WorthResults {
  const { goal } = planOf(mailing)
  const counts = goal && goalCounts(db, mailing, goal)
  return {
    goal,
    segment: (goalSegment(goal) && segmentById(db, Number(goal!.what))?.name) ?? null,
    reached: counts?.mailed ?? null,
    openUntil: goal && mailing.started_at !== null ? goalOpenUntil(db, mailing, goal, now) : null,
    heldOut: counts?.heldOut.of ?? 0,
    lift: counts && counts.heldOut.of > 0 ? liftOf(counts.mailed, counts.heldOut) : null,
    ...moneyOfMailing(db, mailing.id),
  }
}
