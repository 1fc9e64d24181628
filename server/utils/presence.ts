import type { Present } from '~~/core/team'
/** Who says nothing for so long has gone, ms. */
const GONE = 15_000

const letters = new Map<number, Map<string, Present & { at: number }>>()
let changes = 0

/** Counts what changed in who is where, for the lines that tell of it. */
export function presenceChanges(): number {
  return changes
}

/**
 * Says that somebody is here, and in which block; the answer is who else is. A block that somebody is in
 * already is not given to a second: `held` says whether the wanted one was free.
 */
export function bePresent(
  mailingId: number,
  who: Present,
  now: number,
): { others: Present[]; held: boolean } {
  const here = letters.get(mailingId) ?? new Map<string, Present & { at: number }>()
  letters.set(mailingId, here)
  for (const [tab, one] of here)
    if (now - one.at > GONE) {
      here.delete(tab)
      changes++
    }
  const others = [...here.values()].filter(({ tab }) => tab !== who.tab)
  const held = who.blockId === null || others.every(({ blockId }) => blockId !== who.blockId)
  const mine = { ...who, blockId: held ? who.blockId : null, at: now }
  const before = here.get(who.tab)
  if (!before || before.blockId !== mine.blockId) changes++
  here.set(who.tab, mine)
  return { others: others.map(({ at: _at, ...one }) => one), held }
}

/** Somebody has closed the letter. */
export function leave(mailingId: number, tab: string) {
  if (letters.get(mailingId)?.delete(tab)) changes++
}
