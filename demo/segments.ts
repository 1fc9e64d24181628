import { parseRule } from '../core/segments'
import type { Database } from '../database'
import { addSegment, readCatalog } from '../database/segments'

/** The segments the demo account has saved, as one would type them. */
const saved: Record<string, string> = {
  'Reading lately': 'opened any mailing in the last 90 days',
  'Keenest readers': 'tier is keen',
  'Stunt flyers, warm':
    'on list "Offers" and Flying style includes "stunt" and (opened any mailing in the last 90 days or joined in the last 30 days)',
  'Bought in 60 days': 'bought over 0 times in the last 60 days',
  'Best customers': 'spent over 300',
  'Gone quiet':
    'was sent any mailing at least 6 times in the last 180 days and opened any mailing at most 0 times in the last 180 days and clicked any mailing at most 0 times in the last 180 days',
}

/** Saves them; their ids, by name. */
export function makeSegments(db: Database, now: number): Record<string, number> {
  const ids: Record<string, number> = {}
  for (const [name, text] of Object.entries(saved)) {
    const parsed = parseRule(text, readCatalog(db))
    if (!parsed.ok) throw new Error(`${name}: ${parsed.message}`)
    ids[name] = addSegment(db, name, parsed.rule, now)
  }
  return ids
}
