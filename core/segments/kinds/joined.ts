import { sql } from 'kysely'
import { readTime, type TimeComparison } from '../values/comparison'
import { momentsOf } from '../values/moments'
import { parseTime } from '../values/parse'
import { inMoments } from '../values/sql'
import { isIn } from '../values/holds'
import { writeTime } from '../values/write'
import type { ConditionKind } from './kind'

/** When somebody came on file. */
export interface Joined {
  kind: 'joined'
  when: TimeComparison
}

export const joined: ConditionKind<Joined> = {
  read(json) {
    // Mailings made before rules knew other times have only a number of days.
    const when = readTime(json.when ?? { is: 'last-days', days: json.withinDays })
    return when && { kind: 'joined', when }
  },
  ready: (of) => of,
  inFacts: () => true,
  sql: ({ when }, asked) => inMoments(sql`facts.joined_at`, momentsOf(when, asked), 'never null'),
  predicate({ when }, asked) {
    const moments = momentsOf(when, asked)
    return (person) => isIn(person.joinedAt, moments)
  },
  fact: (_, person, { day }) => `joined ${day(person.joinedAt)}`,
  phrases: [{ begins: 'joined', read: (r) => ({ kind: 'joined', when: parseTime(r) }) }],
  write: ({ when }) => `joined ${writeTime(when)}`,
  offers: () => [
    {
      words: 'Joined in the last days',
      also: 'new since signed up member date',
      of: { kind: 'joined', when: { is: 'last-days', days: 30 } },
    },
  ],
}
