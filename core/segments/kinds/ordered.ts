import { sql } from 'kysely'
import { readTime, type TimeComparison } from '../values/comparison'
import { momentsOf } from '../values/moments'
import { parseTime } from '../values/parse'
import { inMoments } from '../values/sql'
import { isIn } from '../values/holds'
import { writeTime } from '../values/write'
import type { ConditionKind } from './kind'

/** When somebody ordered for the first or the last time. */
export interface Ordered {
  kind: 'ordered'
  which: 'first' | 'last'
  when: TimeComparison
}

export const ordered: ConditionKind<Ordered> = {
  read(json) {
    const when = readTime(json.when)
    return when && (json.which === 'first' || json.which === 'last')
      ? { kind: 'ordered', which: json.which, when }
      : null
  },
  ready: (of) => of,
  sql: ({ which, when }, asked) =>
    inMoments(
      which === 'first' ? sql`facts.first_order_at` : sql`facts.last_order_at`,
      momentsOf(when, asked),
    ),
  predicate({ which, when }, asked) {
    const moments = momentsOf(when, asked)
    const pick = which === 'first' ? Math.min : Math.max
    return ({ orders }) =>
      orders.length > 0 &&
      isIn(
        orders.reduce((at, order) => pick(at, order.at), orders[0]!.at),
        moments,
      )
  },
  fact({ which }, { orders }, { day }) {
    const times = orders.map(({ at }) => at)
    if (times.length === 0) return 'never ordered'
    return which === 'first'
      ? `first on ${day(Math.min(...times))}`
      : `last on ${day(Math.max(...times))}`
  },
  phrases: (['first', 'last'] as const).map((which) => ({
    begins: `${which} bought`,
    read: (r) => ({ kind: 'ordered', which, when: parseTime(r) }),
  })),
  write: ({ which, when }) => `${which} bought ${writeTime(when)}`,
  offers: () => [
    {
      words: 'Last bought',
      also: 'order date time lapsed',
      of: { kind: 'ordered', which: 'last', when: { is: 'last-days', days: 60 } },
    },
    {
      words: 'First bought',
      also: 'order date time new customer',
      of: { kind: 'ordered', which: 'first', when: { is: 'last-days', days: 60 } },
    },
  ],
}
