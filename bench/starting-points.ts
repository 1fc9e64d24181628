import { parseRule, startsFor, STARTS_AT_A_TIME } from '../core/segments'
import { closeDatabase, openDatabase } from '../database'
import { readVocabulary } from '../database/people'
import { countMembers, countSeveral, readCatalog } from '../database/segments'
import type { Measure } from './harness'
import { millionFolder, NOW } from './million'

/**
 * The counts of all segments to begin from, of a million people, some at a time as the page asks for them, against the
 * dearest of them alone.
 */
export const startingPoints: Measure = {
  name: 'starting-points',
  unit: 'ms',
  promise: { atMost: 3 },
  runs: 3,
  run() {
    const db = openDatabase(millionFolder(), { reading: true })
    const catalog = readCatalog(db)
    const common = { field: 'town', name: 'Town', value: 'Town7' }
    const rules = startsFor(readVocabulary(db), common).flatMap(({ text }) => {
      const parsed = parseRule(text, catalog)
      return parsed.ok ? [parsed.rule] : []
    })
    const timed = <T>(work: () => T) => {
      const began = performance.now()
      const result = work()
      return { ms: performance.now() - began, result }
    }
    const inParts = () => {
      const counts: number[] = []
      for (let from = 0; from < rules.length; from += STARTS_AT_A_TIME)
        counts.push(...countSeveral(db, rules.slice(from, from + STARTS_AT_A_TIME), NOW))
      return counts
    }
    inParts()
    const first = timed(() => countSeveral(db, rules.slice(0, STARTS_AT_A_TIME), NOW)).ms
    const ours = timed(inParts)
    const alone = rules.map((rule) => timed(() => countMembers(db, rule, NOW)))
    if (ours.result.join() !== alone.map(({ result }) => result).join())
      throw new Error('Together they are counted otherwise than alone.')
    closeDatabase(db)
    return Promise.resolve({
      ours: ours.ms,
      reference: Math.max(...alone.map(({ ms }) => ms)),
      notes: {
        starts: rules.length,
        'until the first are shown': first,
        'one by one': alone.reduce((sum, { ms }) => sum + ms, 0),
      },
    })
  },
}
