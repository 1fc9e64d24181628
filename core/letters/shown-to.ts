import { readRule, type Rule } from '../segments'
import type { Block, LetterDocument, Row } from './document'

/**
 * Who gets a row or a block: those whom a rule keeps, or everyone else: those who get none of the ones just
 * before it that have a rule. Left out: everybody.
 */
export type ShownTo = { rule: Rule } | { rest: true }

/** Whether a part is shown, said by the truth of the letter's rules: one of these holds, or none of them does. */
export interface Condition {
  of: number[]
  holds: boolean
}

/** A letter's rules, each once, and the condition of every part that is not for everybody, by the part's id. */
export interface Conditions {
  rules: Rule[]
  of: ReadonlyMap<string, Condition>
}

/** The rules and conditions of a letter, rows and their blocks from top to bottom. */
export function conditionsOf(document: LetterDocument): Conditions {
  const rules: Rule[] = []
  const known = new Map<string, number>()
  const of = new Map<string, Condition>()
  const number = (rule: Rule) => {
    const key = JSON.stringify(rule)
    const found = known.get(key) ?? rules.push(rule) - 1
    known.set(key, found)
    return found
  }
  const among = (parts: readonly (Row | Block)[]) => {
    let before: number[] = []
    for (const part of parts) {
      if (!part.shownTo) before = []
      else if ('rule' in part.shownTo) {
        const rule = number(part.shownTo.rule)
        before.push(rule)
        of.set(part.id, { of: [rule], holds: true })
      } else {
        of.set(part.id, { of: before, holds: false })
        before = []
      }
    }
  }
  among(document.rows)
  for (const row of document.rows) for (const { blocks } of row.columns) among(blocks)
  return { rules, of }
}

/** Whether a part with this condition is shown to somebody for whom the rules are so. */
export function isShown({ of, holds }: Condition, truth: readonly boolean[]): boolean {
  return of.some((rule) => truth[rule]) === holds
}

/** The document as it is for somebody for whom the rules are so: what is not shown is gone. */
export function shownDocument(
  document: LetterDocument,
  truth: readonly boolean[],
  conditions = conditionsOf(document),
): LetterDocument {
  const shown = ({ id }: { id: string }) => {
    const condition = conditions.of.get(id)
    return !condition || isShown(condition, truth)
  }
  return {
    ...document,
    rows: document.rows.filter(shown).map((row) => ({
      ...row,
      columns: row.columns.map((column) => ({ ...column, blocks: column.blocks.filter(shown) })),
    })),
  }
}

/** The document without what is left out on narrow or on wide; the same document where nothing is. */
export function withoutHidden(document: LetterDocument): LetterDocument {
  const parts = document.rows.flatMap((row) => [
    row,
    ...row.columns.flatMap(({ blocks }) => blocks),
  ])
  if (!parts.some(({ hidden }) => hidden)) return document
  return {
    ...document,
    rows: document.rows
      .filter(({ hidden }) => !hidden)
      .map((row) => ({
        ...row,
        columns: row.columns.map((column) => ({
          ...column,
          blocks: column.blocks.filter(({ hidden }) => !hidden),
        })),
      })),
  }
}

/** The document with every rule as `change` makes it; the same document where it changes none. */
export function mapRules(document: LetterDocument, change: (rule: Rule) => Rule): LetterDocument {
  let touched = false
  const mapped = <P extends Row | Block>(part: P): P => {
    if (!part.shownTo || !('rule' in part.shownTo)) return part
    const rule = change(part.shownTo.rule)
    if (JSON.stringify(rule) === JSON.stringify(part.shownTo.rule)) return part
    touched = true
    return { ...part, shownTo: { rule } }
  }
  const rows = document.rows.map((row) => ({
    ...mapped(row),
    columns: row.columns.map((column) => ({ ...column, blocks: column.blocks.map(mapped) })),
  }))
  return touched ? { ...document, rows } : document
}

/** Reads what came from outside; undefined is everybody. A rule that is none keeps nobody, so nothing is widened. */
export function cleanShownTo(json: unknown): ShownTo | undefined {
  if (typeof json !== 'object' || json === null) return undefined
  if ('rest' in json && json.rest === true) return { rest: true }
  if (!('rule' in json)) return undefined
  return { rule: readRule(json.rule) ?? { kind: 'any', of: [] } }
}
