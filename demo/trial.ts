import { noVariant, partsOf, plainPlan, type DispatchPlan } from '../core/dispatch'
import { compareVariants, slotOf, variantOf } from '../core/experiments'
import { HOUR } from '../core/time'
import { q, run, type Database } from '../database'
import { decideTest, outcomesOf, variantCounts } from '../database/results'
import { mailingById, updateMailing, addParts, fixVariants } from '../database/mailings'
import type { DemoPerson } from './people'
import type { PastMailing } from './history'

const HOURS = 4
const SHARE = 0.4

/** A past mailing's A/B test of its subject: who got what, and how it was decided before the rest went out. */
export function beginTrial(
  db: Database,
  id: number,
  past: PastMailing,
  others: NonNullable<PastMailing['tried']>,
) {
  const plan: DispatchPlan = {
    ...plainPlan,
    test: {
      of: 'subject',
      variants: [noVariant, ...others.map(({ subject }) => ({ ...noVariant, subject }))],
      share: SHARE,
      measure: 'open',
      hours: HOURS,
      decides: 'itself',
    },
    goal: { is: 'order', what: '', days: 5 },
  }
  updateMailing(db, id, { plan: JSON.stringify(plan) })
  const mailing = mailingById(db, id)!
  fixVariants(db, mailing, plan, 'Galewright Kites', past.at)
  addParts(db, id, partsOf(plan))
  const many = others.length + 1

  function begin(part: number, at: number) {
    run(
      db,
      q
        .updateTable('mailing_parts')
        .set({ begun_at: at })
        .where('mailing_id', '=', id)
        .where('no', '=', part),
    )
  }

  function decide(): number {
    const { leader, clear } = compareVariants(outcomesOf(variantCounts(db, { id }, null), 'open'))
    const by = clear ? 'itself' : 'itself, without a clear winner'
    decideTest(db, mailingById(db, id)!, leader, by, past.at + HOURS * HOUR)
    return leader
  }

  return {
    hours: HOURS,
    liked: (variant: number | null) => (variant ? others[variant - 1]!.liked : 1),
    /** Those of the test first; then, when it is decided, the rest. */
    *inParts(people: readonly DemoPerson[]) {
      const inTest = (person: DemoPerson) => slotOf('test', id, person.id) < SHARE
      begin(0, past.at)
      for (const person of people)
        if (inTest(person))
          yield { person, variant: variantOf(id, person.id, many), part: 0, after: 0 }
      const winner = decide()
      begin(1, past.at + HOURS * HOUR)
      for (const person of people)
        if (!inTest(person)) yield { person, variant: winner, part: 1, after: HOURS * HOUR }
    },
  }
}
