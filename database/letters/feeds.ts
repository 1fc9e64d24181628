import type { FeedEntry } from '../../core/letters'
import { HOUR } from '../../core/time'
import { all, one, q, run, type Database } from '../query'
import type { FeedState } from '../../core/letters'

const fresh = HOUR

/** Puts a feed on the engine's list; what it told before is kept meanwhile. */
export function askForFeed(db: Database, url: string, now: number) {
  run(
    db,
    q
      .insertInto('feeds')
      .values({ url, asked_at: now })
      .onConflict((c) => c.column('url').doUpdateSet({ asked_at: now })),
  )
}

/** What is known of a feed; one not read lately is asked for. */
export function feedState(db: Database, url: string, now: number): FeedState {
  const known = one(db, q.selectFrom('feeds').selectAll().where('url', '=', url))
  if (!known || (known.read_at !== null && known.read_at < now - fresh && !isWaiting(known)))
    askForFeed(db, url, now)
  return {
    entries: known ? (JSON.parse(known.entries) as FeedEntry[]) : [],
    problem: known?.problem ?? null,
    readAt: known?.read_at ?? null,
    waits: !known || isWaiting(known),
  }
}

/** Feeds that wait to be read. */
export function feedsToRead(db: Database, limit: number): string[] {
  const waiting = q
    .selectFrom('feeds')
    .select('url')
    .where((or) => or.or([or('read_at', 'is', null), or('read_at', '<', or.ref('asked_at'))]))
    .orderBy('asked_at')
    .limit(limit)
  return all(db, waiting).map(({ url }) => url)
}

/** Writes what a feed told; where it could not be read, why, and what it told before stays. */
export function saveFeed(
  db: Database,
  url: string,
  told: { entries: FeedEntry[] } | { problem: string },
  now: number,
) {
  const set =
    'entries' in told
      ? { entries: JSON.stringify(told.entries), problem: null }
      : { problem: told.problem }
  run(
    db,
    q
      .updateTable('feeds')
      .set({ ...set, read_at: now })
      .where('url', '=', url),
  )
}

function isWaiting(feed: { asked_at: number; read_at: number | null }): boolean {
  return feed.read_at === null || feed.read_at < feed.asked_at
}
