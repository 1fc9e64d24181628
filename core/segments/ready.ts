import type { FieldKind } from '../people/fields'
import { familyOf, type Comparison, type Family } from './comparison'
import { isGroup, type Condition, type Rule } from './rule'

/** What there is on file that a rule may refer to. */
export interface Catalog {
  fields: ReadonlyMap<string, { name: string; kind: FieldKind }>
  lists: ReadonlyMap<number, string>
  tags: ReadonlyMap<number, string>
  mailings: ReadonlyMap<number, string>
  segments: ReadonlyMap<number, SavedSegment>
  sequences: ReadonlyMap<number, string>
  /** Digits after the point of the account's currency. */
  moneyDigits: number
}

/** A segment is its rule; a frozen one is the people who were in it, whatever became of them. */
export type SavedSegment = { name: string; rule: Rule; frozen: boolean }

/** A rule in which every reference has been found: segments carry their rule, fields their family. */
export type ReadyRule =
  | ReadyGroup
  | { kind: 'segment'; segmentId: number; of: ReadyRule }
  | { kind: 'frozen'; segmentId: number }
  | { kind: 'field'; key: string; family: Family; test: Comparison }
  | Exclude<Condition, { kind: 'segment' } | { kind: 'field' }>

export interface ReadyGroup {
  kind: 'all' | 'any' | 'none'
  of: ReadyRule[]
}

/** What is wrong with one condition: where it stands (indexes from the root), and in words. */
export interface RuleProblem {
  path: number[]
  message: string
}

/** Which family of values a field of a kind has. */
export const families: Record<FieldKind, Family> = {
  text: 'text',
  choice: 'text',
  link: 'text',
  number: 'number',
  date: 'day',
  yesno: 'yesno',
  choices: 'choices',
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
    const missing = (message: string): ReadyRule => {
      problems.push({ path, message })
      return { kind: 'any', of: [] }
    }
    if (isGroup(part))
      return { kind: part.kind, of: part.of.map((child, i) => find(child, [...path, i], within)) }
    switch (part.kind) {
      case 'field': {
        const field = catalog.fields.get(part.key)
        if (!field) return missing(`The field “${part.key}” is gone.`)
        const [family, asked] = [families[field.kind], familyOf(part.test)]
        return asked === 'any' || asked === family
          ? { kind: 'field', key: part.key, family, test: part.test }
          : missing(`${field.name} is no longer a field that can be asked this.`)
      }
      case 'tagged':
        return catalog.tags.has(part.tagId) ? part : missing('The tag asked for here is gone.')
      case 'on-list':
        return catalog.lists.has(part.listId) ? part : missing('The list asked for here is gone.')
      case 'mail':
        if (part.of.which === 'sequence')
          return catalog.sequences.has(part.of.id)
            ? part
            : missing('The sequence asked for here is gone.')
        return part.of.which !== 'mailing' || catalog.mailings.has(part.of.id)
          ? part
          : missing('The mailing asked for here is gone.')
      case 'sequence':
        return catalog.sequences.has(part.sequenceId)
          ? part
          : missing('The sequence asked for here is gone.')
      case 'segment': {
        const segment = catalog.segments.get(part.segmentId)
        if (!segment) return missing('The segment asked for here is gone.')
        if (within.includes(part.segmentId))
          return missing(`The segment ${segment.name} would be part of itself.`)
        if (segment.frozen) return { kind: 'frozen', segmentId: part.segmentId }
        const before = problems.length
        const of = find(segment.rule, path, [...within, part.segmentId])
        for (const problem of problems.slice(before))
          if (!problem.message.startsWith('In '))
            problem.message = `In ${segment.name}: ${problem.message}`
        return { kind: 'segment', segmentId: part.segmentId, of }
      }
      default:
        return part
    }
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
