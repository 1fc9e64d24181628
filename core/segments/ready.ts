import { kindOf, type ReadyCondition } from './kinds'
import type { Names } from './names'
import { isGroup, type Rule } from './rule'

/** What there is on file that a rule may refer to: names, and the rules of segments. */
export interface Catalog extends Names {
  segments: ReadonlyMap<number, SavedSegment>
}

/** A segment is its rule; a frozen one is the people who were in it, whatever became of them. */
export type SavedSegment = { name: string; rule: Rule; frozen: boolean }

/** A rule in which every reference has been found; a segment that is a rule stands there as that rule: `members`. */
export type ReadyRule =
  ReadyGroup | { kind: 'members'; segmentId: number; of: ReadyRule } | ReadyCondition

export interface ReadyGroup {
  kind: 'all' | 'any' | 'none'
  of: ReadyRule[]
}

/** What is wrong with one condition: where it stands (indexes from the root), and in words. */
export interface RuleProblem {
  path: number[]
  message: string
}

/**
 * Finds everything a rule refers to. A rule that refers to something that is not there matches
 * nobody as a whole: under "none of", a part that matched nobody would let everybody in.
 */
export function readyRule(
  rule: Rule,
  catalog: Catalog,
): { rule: ReadyRule; problems: [] } | { rule: null; problems: RuleProblem[] } {
  const problems: RuleProblem[] = []
  const ready = find(rule, [], [])
  return problems.length ? { rule: null, problems } : { rule: ready, problems: [] }

  function find(part: Rule, path: number[], within: number[]): ReadyRule {
    if (isGroup(part))
      return { kind: part.kind, of: part.of.map((child, i) => find(child, [...path, i], within)) }
    const found = kindOf(part).ready(part, catalog)
    if (typeof found === 'string') return missing(found, path)
    if (found.kind !== 'segment') return found
    const { segmentId } = found
    const segment = catalog.segments.get(segmentId)!
    if (within.includes(segmentId))
      return missing(`The segment ${segment.name} would be part of itself.`, path)
    if (segment.frozen) return found
    const before = problems.length
    const of = find(segment.rule, path, [...within, segmentId])
    for (const problem of problems.slice(before))
      if (!problem.message.startsWith('In '))
        problem.message = `In ${segment.name}: ${problem.message}`
    return { kind: 'members', segmentId, of }
  }

  function missing(message: string, path: number[]): ReadyRule {
    problems.push({ path, message })
    return { kind: 'any', of: [] }
  }
}

/** Every segment a rule refers to, and those they refer to. */
export function segmentsWithin(rule: Rule, catalog: Catalog): Set<number> {
  const found = new Set<number>()
  const look = (part: Rule) => {
    if (isGroup(part)) part.of.forEach(look)
    else if (part.kind === 'segment' && !found.has(part.segmentId)) {
      found.add(part.segmentId)
      const segment = catalog.segments.get(part.segmentId)
      if (segment && !segment.frozen) look(segment.rule)
    }
  }
  look(rule)
  return found
}
