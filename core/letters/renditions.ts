import type { Rule } from '../segments'
import type { LetterDocument } from './document'
import { conditionsOf, isShown, type Conditions } from './shown-to'

/** How many people there are for whom the rules are so: bit `n` of `truth` says whether rule `n` holds. */
export interface TruthCount {
  truth: number
  people: number
}

/** One distinct version of a letter that really goes out. */
export interface Rendition {
  /** For which truths of the rules it is this one. */
  truths: number[]
  people: number
  /** The ids of the rows and blocks that are left out of it. */
  without: string[]
}

/** More rules than a number has bits for are not asked for one letter. */
export const MOST_RULES = 30

/**
 * The versions of a letter that go out, with how many people get each, the most first. People for whom other
 * rules hold but who are shown the same get the same rendition.
 */
export function renditionsOf(
  document: LetterDocument,
  counts: readonly TruthCount[],
  conditions: Conditions = conditionsOf(document),
): Rendition[] {
  const found = new Map<string, Rendition>()
  for (const { truth, people } of counts) {
    const without = hiddenParts(conditions, truthOf(truth, conditions.rules.length))
    const key = without.join(' ')
    const same = found.get(key)
    if (same) {
      same.truths.push(truth)
      same.people += people
    } else found.set(key, { truths: [truth], people, without })
  }
  return [...found.values()].sort(
    (a, b) => b.people - a.people || a.without.length - b.without.length,
  )
}

/** The bits of a number as truths of so many rules. */
export function truthOf(bits: number, rules: number): boolean[] {
  return Array.from({ length: rules }, (_, n) => Math.floor(bits / 2 ** n) % 2 === 1)
}

function hiddenParts(conditions: Conditions, truth: readonly boolean[]): string[] {
  return [...conditions.of].flatMap(([id, condition]) => (isShown(condition, truth) ? [] : [id]))
}

/** Runs of parts with rules, of which some people get none because there is no "everyone else". */
export function gapsIn(document: LetterDocument, renditions: readonly Rendition[]) {
  const conditions = conditionsOf(document)
  const runs: string[][] = []
  let run: string[] = []
  for (const row of document.rows) {
    const condition = conditions.of.get(row.id)
    if (condition?.holds) run.push(row.id)
    else {
      if (!condition && run.length > 1) runs.push(run)
      run = []
    }
  }
  if (run.length > 1) runs.push(run)
  return runs.flatMap((ids) => {
    const people = renditions
      .filter(({ without }) => ids.every((id) => without.includes(id)))
      .reduce((sum, rendition) => sum + rendition.people, 0)
    return people > 0 ? [{ rows: ids, people }] : []
  })
}

/** A version of a letter that goes out, with the bytes of its HTML before its fill-ins are filled. */
export type WeighedRendition = Rendition & { weight: number }

/** What goes out of a letter over its audience: its versions, and how many people each of its rules keeps. */
export interface Renditions {
  audience: number
  rules: { rule: Rule; words: string; people: number }[]
  renditions: Rendition[]
}
