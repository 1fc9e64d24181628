import { sql } from 'kysely'
import { readTime, type TimeComparison } from '../values/comparison'
import { momentsOf } from '../values/moments'
import { parseTime } from '../values/parse'
import { inMoments, type Truth } from '../values/sql'
import { isIn } from '../values/holds'
import { writeTime } from '../values/write'
import type { ConditionKind } from './kind'

/** Who asked for no mail for some weeks, as long as they last. */
export interface PausedMail {
  kind: 'paused'
  /** When they asked; null: whenever. */
  since: TimeComparison | null
}

export const paused: ConditionKind<PausedMail> = {
  read({ since }) {
    const when = since == null ? null : readTime(since)
    return when !== null || since == null ? { kind: 'paused', since: when } : null
  },
  ready: (of) => of,
  sql({ since }, asked) {
    const when: Truth = since
      ? inMoments(sql`b.paused_at`, momentsOf(since, asked), 'never null')
      : sql`true`
    return sql`exists (select 1 from own_limits b where b.person_id = facts.person_id and b.paused_until > ${asked.now} and ${when})`
  },
  predicate({ since }, asked) {
    const moments = since && momentsOf(since, asked)
    return ({ pause }) =>
      pause !== null && pause.until > asked.now && (moments === null || isIn(pause.at, moments))
  },
  fact(_, { pause }, { asked, day }) {
    if (!pause) return 'never paused their mail'
    return pause.until > asked.now
      ? `paused their mail ${day(pause.at)} until ${day(pause.until)}`
      : `their pause was over ${day(pause.until)}`
  },
  phrases: [
    {
      begins: 'paused',
      read: (r) => {
        const isTime = ['before', 'after', 'on', 'in', 'from', 'between'].some((word) => r.is(word))
        return { kind: 'paused', since: isTime ? parseTime(r) : null }
      },
    },
  ],
  write: ({ since }) => ['paused', ...(since ? [writeTime(since)] : [])].join(' '),
  offers: () => [
    {
      words: 'Paused their mail',
      also: 'snooze holiday break less mail',
      of: { kind: 'paused', since: null },
    },
  ],
}
