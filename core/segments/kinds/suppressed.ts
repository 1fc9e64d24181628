import { sql, type SqlBool } from 'kysely'
import { readTime, type TimeComparison } from '../values/comparison'
import { momentsOf } from '../values/moments'
import { parseTime } from '../values/parse'
import { inMoments } from '../values/sql'
import { isIn } from '../values/holds'
import type { TokenReader } from '../values/token-reader'
import { writeTime } from '../values/write'
import type { ConditionKind } from './kind'

/** Who is suppressed: mailed nothing, whatever lists they are on. */
export interface Suppressed {
  kind: 'suppressed'
  /** Null: for whatever reason. */
  reason: SuppressedFor | null
  since: TimeComparison | null
}

export type SuppressedFor = (typeof suppressedFor)[number]
export const suppressedFor = ['bounced', 'complained', 'by-hand'] as const

const words: Record<SuppressedFor, string> = {
  bounced: 'as bounced',
  complained: 'as complained',
  'by-hand': 'by hand',
}

export const suppressed: ConditionKind<Suppressed> = {
  read({ reason = null, since }) {
    const when = since == null ? null : readTime(since)
    return (reason === null || suppressedFor.includes(reason as SuppressedFor)) &&
      (when !== null || since == null)
      ? { kind: 'suppressed', reason: reason as SuppressedFor | null, since: when }
      : null
  },
  ready: (of) => of,
  sql({ reason, since }, asked) {
    const parts = [sql<SqlBool>`b.person_id = facts.person_id`]
    if (reason) parts.push(sql<SqlBool>`b.reason = ${reason}`)
    if (since) parts.push(inMoments(sql`b.at`, momentsOf(since, asked), 'never null'))
    return sql<SqlBool>`exists (select 1 from set_aside b where ${sql.join(parts, sql` and `)})`
  },
  predicate({ reason, since }, asked) {
    const moments = since && momentsOf(since, asked)
    return ({ suppressed: found }) =>
      found !== null &&
      (reason === null || found.reason === reason) &&
      (moments === null || isIn(found.at, moments))
  },
  fact: (_, { suppressed: found }, { day }) =>
    found ? `suppressed ${words[found.reason]} ${day(found.at)}` : 'not suppressed',
  phrases: [{ begins: 'suppressed', read: parse }],
  write: ({ reason, since }) =>
    ['suppressed', ...(reason ? [words[reason]] : []), ...(since ? [writeTime(since)] : [])].join(
      ' ',
    ),
  offers: () => [
    {
      words: 'Suppressed',
      also: 'blocked do not mail blocklist',
      of: { kind: 'suppressed', reason: null, since: null },
    },
    {
      words: 'Not suppressed',
      also: 'can be mailed reachable',
      of: { kind: 'suppressed', reason: null, since: null },
      not: true,
    },
    {
      words: 'Suppressed since their mail bounced',
      also: 'came back refused invalid address',
      of: { kind: 'suppressed', reason: 'bounced', since: null },
    },
    {
      words: 'Suppressed since they complained',
      also: 'marked as spam',
      of: { kind: 'suppressed', reason: 'complained', since: null },
    },
    {
      words: 'Suppressed by hand',
      also: 'blocked manually',
      of: { kind: 'suppressed', reason: 'by-hand', since: null },
    },
  ],
}

function parse(r: TokenReader): Suppressed {
  let reason: SuppressedFor | null = null
  if (r.take('by')) {
    r.expect('hand')
    reason = 'by-hand'
  } else if (r.take('as')) {
    reason = r.take('bounced') ? 'bounced' : r.take('complained') ? 'complained' : null
    if (!reason) throw r.fault('“bounced” or “complained” is needed here.')
  }
  const isTime = ['before', 'after', 'on', 'in', 'from', 'between'].some((word) => r.is(word))
  return { kind: 'suppressed', reason, since: isTime ? parseTime(r) : null }
}
