import { writeRule, type Catalog } from '../segments'
import type { LetterDocument } from './document'
import { truthOf } from './renditions'
import { conditionsOf, isShown } from './shown-to'

/**
 * A rendition by the parts that not everybody is shown: the rules of those that are in it, in words. Who is shown the same
 * by other rules that hold gets the same name.
 */
export function renditionName(document: LetterDocument, truth: number, catalog: Catalog): string {
  const { rules, of } = conditionsOf(document)
  const bits = truthOf(truth, rules.length)
  const words = [...of.values()]
    .filter((condition) => isShown(condition, bits))
    .map(({ of: asked, holds }) =>
      holds ? writeRule(rules[asked[0]!]!, catalog) : 'everyone else',
    )
  return [...new Set(words)].join(' + ') || 'only what everybody gets'
}
