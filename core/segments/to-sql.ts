import { sql, type Expression, type SqlBool } from 'kysely'
import { kindOf } from './kinds'
import type { ReadyRule } from './ready'
import type { Asked } from './values/moments'
import { joined, type Truth } from './values/sql'

/**
 * The rule as a condition on rows of `facts`, one for each person. It is true or false, never
 * unknown: a missing value matches "is empty" and "is not", and nothing else. `null` is the rule that
 * could not be made ready: nobody.
 * @example selectFrom('facts').where(() => ruleToSql(rule, asked)).select('person_id')
 */
export function ruleToSql(rule: ReadyRule | null, asked: Asked): Expression<SqlBool> {
  return rule === null ? sql<SqlBool>`0` : toSql(rule, asked)
}

function toSql(rule: ReadyRule, asked: Asked): Truth {
  const parts = () =>
    (rule as { of: ReadyRule[] }).of
      .toSorted((one, other) => turnOf(one) - turnOf(other))
      .map((part) => toSql(part, asked))
  switch (rule.kind) {
    case 'all':
      return joined(parts(), sql` and `, sql<SqlBool>`1`)
    case 'any':
      return joined(parts(), sql` or `, sql<SqlBool>`0`)
    case 'none':
      return sql<SqlBool>`not ${joined(parts(), sql` or `, sql<SqlBool>`0`)}`
    case 'members':
      return toSql(rule.of, asked)
    default:
      return kindOf(rule).sql(rule, asked)
  }
}

/**
 * SQLite asks parts in the order in which they stand: what the person's own row says comes before what is looked up, and
 * last of it the list, on which most are who are asked at all.
 */
function turnOf(rule: ReadyRule): number {
  switch (rule.kind) {
    case 'all':
    case 'any':
    case 'none':
    case 'members':
      return 2
    default:
      return !kindOf(rule).inFacts?.(rule) ? 2 : rule.kind === 'on-list' ? 1 : 0
  }
}
