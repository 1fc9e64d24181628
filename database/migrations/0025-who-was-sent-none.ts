import type Sqlite from 'better-sqlite3'

/** Everything that keeps rules, as JSON. */
const places = [
  ['segments', 'rule'],
  ['mailings', 'rule'],
  ['mailings', 'left_out'],
  ['sequences', 'map'],
  ['sequence_versions', 'map'],
  ['letters', 'document'],
  ['own_templates', 'document'],
  ['stamps', 'content'],
] as const

/**
 * "Opened none of …" is told of those who were sent one from now on. Rules on file say that the others are in it, too, as they
 * meant it when they were made, so that nobody comes into a segment or leaves it by this.
 */
export const whoWasSentNone = {
  withoutForeignKeys(sqlite: Sqlite.Database) {
    for (const [table, column] of places) {
      const texts = sqlite
        .prepare(`select distinct ${column} from ${table} where instr(${column}, '"mail"') > 0`)
        .pluck()
        .all() as string[]
      const update = sqlite.prepare(`update ${table} set ${column} = ? where ${column} = ?`)
      for (const text of texts) {
        const changed = JSON.stringify(withUnsent(JSON.parse(text)))
        if (changed !== text) update.run(changed, text)
      }
    }
  },
}

function withUnsent(json: unknown): unknown {
  if (Array.isArray(json)) return json.map(withUnsent)
  if (typeof json !== 'object' || json === null) return json
  const of = Object.fromEntries(
    Object.entries(json as Record<string, unknown>).map(([key, value]) => [key, withUnsent(value)]),
  )
  return of.kind === 'mail' && (of.did === 'opened' || of.did === 'clicked') && allowsNone(of.times)
    ? { ...of, orUnsent: true }
    : of
}

function allowsNone(times: unknown): boolean {
  const { is, n } = (times ?? {}) as { is?: unknown; n?: unknown }
  return is === 'at-most' || n === 0
}
