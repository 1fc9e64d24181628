import type { Mark } from './mark'

/** Blockers that an owner lets pass, why, and who that was. Others, and those that come anew, hold it still. */
export interface Overruling {
  reason: string
  byName: string
  at: number
  /** What they were, as {@link markKey} says it. */
  keys: string[]
}

/** What can't be passed over: without these nothing can go out, or nobody could ask who wrote. */
const never = ['audience', 'postal-address']

/**
 * The same finding in the same place, as long as what was found is the same. Of how many people it holds is no part of it:
 * people come and go from minute to minute, and what was let pass would hold the mailing again.
 */
export function markKey({ check, blockId, title }: Mark): string {
  return withoutCounts([check, blockId ?? '', title].join('|'))
}

const withoutCounts = (key: string) => key.replace(/[\d,]+ of [\d,]+/g, 'some of all')

export function mayOverrule({ check, level }: Mark): boolean {
  return level === 'blocker' && !never.includes(check)
}

/** The marks with those blockers as cautions that were overruled, and the reason with them. */
export function withOverruled(marks: readonly Mark[], overruling: Overruling | null): Mark[] {
  if (!overruling) return [...marks]
  const { byName, reason } = overruling
  // Those kept by earlier versions have their counts.
  const keys = overruling.keys.map(withoutCounts)
  return marks.map((mark) =>
    mayOverrule(mark) && keys.includes(markKey(mark))
      ? {
          ...mark,
          level: 'caution',
          detail: `${mark.detail} ${byName} lets it pass: “${reason}”`.trim(),
        }
      : mark,
  )
}
