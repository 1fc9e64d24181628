import {
  blocksOf,
  conditionsOf,
  linksOf,
  shownDocument,
  truthOf,
  type Letter,
} from '../core/letters'
import type { Database } from '../database'
import { truthsOf } from '../database/mailings'

/** What somebody was shown of a letter: which of its rules held for them, as bits, and the numbers of its links. */
export interface Shown {
  truth: number | null
  links: number[]
}

/** What each of some people is shown of a letter that may differ per reader. */
export function shownOf(
  db: Database,
  { document }: Letter,
  personIds: readonly number[],
  now: number,
): (personId: number) => Shown {
  const conditions = conditionsOf(document)
  const links = linksOf(document)
  if (conditions.rules.length === 0) {
    const whole = { truth: null, links: [...links.keys()] }
    return () => whole
  }
  const truths = truthsOf(db, personIds, conditions.rules, now)
  const byTruth = new Map(
    [...new Set(truths.values())].map((truth) => {
      const shown = shownDocument(document, truthOf(truth, conditions.rules.length), conditions)
      const blocks = new Set(blocksOf(shown).map(({ id }) => id))
      return [
        truth,
        { truth, links: [...links.keys()].filter((n) => blocks.has(links[n]!.blockId)) },
      ] as const
    }),
  )
  return (personId) => byTruth.get(truths.get(personId)!)!
}
