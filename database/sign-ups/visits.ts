import { createHmac, randomBytes } from 'node:crypto'
import { deviceOf } from '../../core/counting'
import type { ReaderLanguage } from '../../core/readers'
import { one, q, run, transact, type Database } from '../query'

/** A form that came into somebody's sight, or into which they typed a first key. */
export interface Visit {
  signUpId: number
  version: number
  language: ReaderLanguage
  page: string | null
  source: Record<string, string>
  ip: string
  agent: string
  begun: boolean
}

/**
 * Counts a visitor once a day and form. Who they are is a hash of their address and browser, by a key of that day which is
 * thrown away with it: no cookie, and nobody can be found out later. `day`: the account's.
 */
export function recordVisit(db: Database, visit: Visit, day: string, now: number) {
  transact(db, () => {
    const visitor = visitorOf(db, visit, day)
    const begun = visit.begun ? 1 : 0
    run(
      db,
      q
        .insertInto('sign_up_visits')
        .values({
          ...{ sign_up_id: visit.signUpId, visitor, version: visit.version, at: now, begun },
          ...{ language: visit.language, device: deviceOf(visit.agent), page: visit.page },
          source: JSON.stringify(visit.source),
        })
        .onConflict((c) =>
          c.columns(['sign_up_id', 'visitor']).doUpdateSet((eb) => ({
            begun: eb.fn('max', ['sign_up_visits.begun', eb.val(begun)]),
          })),
        ),
    )
  })
}

/** A visitor, as far as they can be told from others for a day. */
export function visitorOf(
  db: Database,
  { ip, agent }: { ip: string; agent: string },
  day: string,
): string {
  const mac = createHmac('sha256', keyOfDay(db, day)).update(`${ip}\n${agent}`)
  return mac.digest('base64url').slice(0, 22)
}

/** The key of a day; those of other days are thrown away. */
function keyOfDay(db: Database, day: string): string {
  const found = one(db, q.selectFrom('visitor_keys').select('key').where('day', '=', day))
  if (found) return found.key
  const key = randomBytes(32).toString('hex')
  run(db, q.deleteFrom('visitor_keys'))
  run(db, q.insertInto('visitor_keys').values({ day, key }))
  return key
}
