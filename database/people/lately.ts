import type { Database } from '../query'

/** So long what was found out of how many there are is good enough to choose a way by, ms of the host's. */
const LATELY = 60_000
/** As many are remembered on each connection. */
const MOST = 200

const known = new WeakMap<Database, Map<string, { value: unknown; until: number }>>()

/**
 * What was found out lately, or is now: for what decides only how something is asked, so that the pages of a table do not
 * find it out again each. A value that has changed since costs time and changes no answer.
 */
export function lately<T>(db: Database, key: string, find: () => T): T {
  let of = known.get(db)
  if (!of) known.set(db, (of = new Map()))
  const before = of.get(key)
  if (before && before.until > Date.now()) return before.value as T
  const value = find()
  if (of.size >= MOST) of.clear()
  of.set(key, { value, until: Date.now() + LATELY })
  return value
}
