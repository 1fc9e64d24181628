import { firstWords, kindOf, type Condition } from './kinds'
import type { Names } from './names'
import { isGroup, type Rule } from './rule'
import { tidyRule } from './tidy'

/**
 * A rule as one line that reads as English; `parseRule` reads it back to the same (tidied) rule.
 * @example 'on list "Offers" and Flying style includes "stunt" and (opened any mailing in the last 90 days or joined in the last 30 days)'
 */
export function writeRule(rule: Rule, names: Names): string {
  return write(tidyRule(rule), names, 'root')
}

function write(rule: Rule, names: Names, within: 'root' | Rule['kind']): string {
  if (!isGroup(rule)) return writeCondition(rule, names)
  if (rule.of.length === 0) return rule.kind === 'any' ? 'nobody' : 'everyone'
  const parts = rule.of.map((part) => write(part, names, rule.kind))
  if (rule.kind === 'none' && parts.length === 1) return `not ${parts[0]}`
  const text =
    rule.kind === 'none'
      ? `neither ${parts.join(' nor ')}`
      : parts.join(rule.kind === 'all' ? ' and ' : ' or ')
  return within === 'root' ? text : `(${text})`
}

/** One condition as a phrase. */
export function writeCondition(of: Condition, names: Names): string {
  return kindOf(of).write(of, names, firstWords)
}
