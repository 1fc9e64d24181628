import { sql } from 'kysely'
import { all, raw, type Database } from '../query'
import { membersOf } from './segments'

/** People who are in just these of some segments, and in no other of them. */
export interface SharedPart {
  /** Ids of the segments they are in; none: in no segment. */
  of: number[]
  n: number
}

/** Segments that can be compared at once. */
export const MOST_COMPARED = 6

/**
 * Splits everybody by which of some segments they are in: each person is in exactly one part, so the
 * parts sum to everybody. Largest first.
 */
export function compareSegments(db: Database, ids: readonly number[], now: number): SharedPart[] {
  const bits = ids.map(
    (id, i) => sql`((${membersOf(db, { kind: 'segment', segmentId: id }, now)}) * ${2 ** i})`,
  )
  const which = bits.length ? sql.join(bits, sql` + `) : sql`0`
  const rows = all(
    db,
    raw(
      sql<{
        bits: number
        n: number
      }>`select bits, count(*) as n from (select ${which} as bits from facts limit -1) group by bits`,
    ),
  )
  return rows
    .map(({ bits: held, n }) => ({ of: ids.filter((_, i) => (held >> i) & 1), n }))
    .sort((a, b) => b.n - a.n)
}
