import { conditionsOf, linksOf, renditionsOf, type Letter } from '../core/letters'
import type { Database } from '../database'
import { truthsOf } from '../database/renditions'

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
  const rowOf = new Map(
    document.rows.flatMap((row) =>
      row.columns.flatMap(({ blocks }) => blocks.map(({ id }) => [id, row.id] as const)),
    ),
  )
  const truths = truthsOf(db, personIds, conditions.rules, now)
  const byTruth = new Map(
    [...new Set(truths.values())].map((truth) => {
      const without = renditionsOf(document, [{ truth, people: 1 }], conditions)[0]!.without
      const isSeen = ({ blockId }: { blockId: string }) =>
        !without.includes(blockId) && !without.includes(rowOf.get(blockId)!)
      return [truth, { truth, links: [...links.keys()].filter((n) => isSeen(links[n]!)) }] as const
    }),
  )
  return (personId) => byTruth.get(truths.get(personId)!)!
}
