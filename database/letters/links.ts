import { all, q, run, transact, type Database } from '../query'
import type { LinkCheck } from '../../core/proof'
import { HOUR } from '../../core/time'

/** An answer counts as known for this long. */
const fresh = 6 * HOUR

/**
 * What is known of some links. Those not known, or asked too long ago, are put on the list that
 * the engine asks; what was known of the old ones is told meanwhile.
 */
export function linkChecks(
  db: Database,
  urls: readonly string[],
  now: number,
): Map<string, LinkCheck> {
  const wanted = [...new Set(urls)].filter((url) => /^https?:/i.test(url)).slice(0, 300)
  if (wanted.length === 0) return new Map()
  const known = all(db, q.selectFrom('link_checks').selectAll().where('url', 'in', wanted))
  const recent = new Set(known.filter((row) => row.asked_at > now - fresh).map(({ url }) => url))
  const ask = wanted.filter((url) => !recent.has(url))
  if (ask.length)
    transact(db, () => {
      for (const url of ask)
        run(
          db,
          q
            .insertInto('link_checks')
            .values({ url, asked_at: now })
            .onConflict((c) => c.column('url').doUpdateSet({ asked_at: now, checked_at: null })),
        )
    })
  return new Map(
    known
      .filter((row) => row.status !== null || row.problem !== null)
      .map(({ url, status, problem }) => [url, { status, problem }]),
  )
}

/** Links that wait to be asked. */
export function linksToCheck(db: Database, limit: number): string[] {
  return all(
    db,
    q
      .selectFrom('link_checks')
      .select('url')
      .where('checked_at', 'is', null)
      .orderBy('asked_at')
      .limit(limit),
  ).map(({ url }) => url)
}

export function saveLinkCheck(db: Database, url: string, check: LinkCheck, now: number) {
  run(
    db,
    q
      .updateTable('link_checks')
      .set({ ...check, checked_at: now })
      .where('url', '=', url),
  )
}
