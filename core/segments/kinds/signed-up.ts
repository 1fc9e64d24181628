import { sql } from 'kysely'
import { isWhole, readTime, type TimeComparison } from '../values/comparison'
import { isIn } from '../values/holds'
import { momentsOf } from '../values/moments'
import { parseTime } from '../values/parse'
import { inMoments, type Truth } from '../values/sql'
import { named, writeTime } from '../values/write'
import type { ConditionKind } from './kind'

/** Who sent in a sign-up's form and confirmed it. */
export interface SignedUp {
  kind: 'signed-up'
  /** By which; null: any. */
  signUpId: number | null
  /** When they confirmed; null: whenever. */
  since: TimeComparison | null
}

export const signedUp: ConditionKind<SignedUp> = {
  read({ signUpId = null, since }) {
    const when = since == null ? null : readTime(since)
    return (signUpId === null || isWhole(signUpId, 1)) && (when !== null || since == null)
      ? { kind: 'signed-up', signUpId: signUpId as number | null, since: when }
      : null
  },
  ready: (of, { signUps }) =>
    of.signUpId === null || signUps.has(of.signUpId) ? of : 'The sign-up asked for here is gone.',
  sql({ signUpId, since }, asked) {
    const which: Truth = signUpId === null ? sql`true` : sql`g.sign_up_id = ${signUpId}`
    const when: Truth = since
      ? inMoments(sql`g.ended_at`, momentsOf(since, asked), 'never null')
      : sql`true`
    return sql`exists (select 1 from sign_up_sendings g where g.person_id = facts.person_id and g.state = 'confirmed' and ${which} and ${when})`
  },
  predicate({ signUpId, since }, asked) {
    const moments = since && momentsOf(since, asked)
    return ({ signUps }) =>
      signUps.some(
        (one) =>
          (signUpId === null || one.signUpId === signUpId) &&
          (moments === null || isIn(one.at, moments)),
      )
  },
  fact({ signUpId }, { signUps }, { names, day }) {
    const last = signUps.findLast((one) => signUpId === null || one.signUpId === signUpId)
    if (!last) return signUpId === null ? 'never signed up by a form' : 'not by this one'
    return `signed up by “${names.signUps.get(last.signUpId) ?? 'one that is gone'}” ${day(last.at)}`
  },
  phrases: [
    {
      begins: 'signed up',
      read: (r, { signUps }) => {
        const signUpId = r.take('by') ? r.named(signUps, 'sign-up') : null
        const isTime = ['before', 'after', 'on', 'in', 'from', 'between'].some((word) => r.is(word))
        return { kind: 'signed-up', signUpId, since: isTime ? parseTime(r) : null }
      },
    },
  ],
  write: ({ signUpId, since }, { signUps }) =>
    [
      'signed up',
      ...(signUpId === null ? [] : [`by ${named(signUpId, signUps)}`]),
      ...(since ? [writeTime(since)] : []),
    ].join(' '),
  offers: ({ signUps }) => [
    {
      words: 'Signed up by a form',
      also: 'opt-in form pop-over joined confirmed source',
      of: { kind: 'signed-up', signUpId: null, since: null },
    },
    ...signUps.map(({ id, name }) => ({
      words: `Signed up by “${name}”`,
      also: 'opt-in form pop-over joined confirmed source',
      of: { kind: 'signed-up' as const, signUpId: id, since: null },
      many: true as const,
    })),
  ],
}
