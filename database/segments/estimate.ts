import { sql } from 'kysely'
import { estimateSizes, type PastSizes, type PersonFacts, type Rule } from '../../core/segments'
import { DAY } from '../../core/time'
import { factsOf } from './person-facts'
import { all, raw, type Database } from '../query'
import { countLines } from './lines'
import { askedAt, readyNow } from './segments'

/** About so many people of either part are looked at. */
const DRAWN = 300
const WEEKS = 12

/**
 * Reckons how many people a rule kept in each of the last twelve weeks: from some of those it keeps now
 * and some of the others. The last one is the count itself.
 */
export function pastSizes(db: Database, rule: Rule, now: number): PastSizes {
  const { everyone, total } = countLines(db, rule, now)
  const inside = draw(db, total, 'temp.members where true')
  const outside = draw(
    db,
    everyone - total,
    'facts where person_id not in (select person_id from temp.members)',
  )
  const moments = Array.from({ length: WEEKS }, (_, i) => now - (WEEKS - i) * 7 * DAY)
  const strata = [
    { size: total, drawn: inside },
    { size: everyone - total, drawn: outside },
  ]
  return {
    drawn: inside.length + outside.length,
    everyone,
    sizes: [
      ...estimateSizes(readyNow(db, rule), askedAt(db, now), strata, moments),
      { at: now, size: total, low: total, high: total },
    ],
  }
}

/**
 * Some people out of a table of `size`, everybody where they are few. Ids are spread by a multiplicative
 * hash (Knuth, 6.4), so the same people are drawn each time and one scan is enough.
 */
function draw(db: Database, size: number, from: string): PersonFacts[] {
  const below = size <= DRAWN ? 2 ** 32 : Math.floor((2 ** 32 * DRAWN) / size)
  const ids = all(
    db,
    raw(
      sql<{ person_id: number }>`select person_id from ${sql.raw(from)}
        and (person_id * 2654435761) % 4294967296 < ${below}`,
    ),
  )
  return ids.flatMap(({ person_id }) => factsOf(db, person_id) ?? [])
}
