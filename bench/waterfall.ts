import { parseRule, type Rule } from '../core/segments'
import { closeDatabase, openDatabase, type Database } from '../database'
import { audienceWaterfall, countAudience, readCatalog } from '../database/segments'
import type { Measure } from './harness'
import { millionFolder, NOW } from './million'

const rule = (db: Database, text: string): Rule => {
  const parsed = parseRule(text, readCatalog(db))
  if (!parsed.ok) throw new Error(parsed.message)
  return parsed.rule
}

/** Who drops out at each step, of a million people: a segment in, one out, and a frequency cap; against a second. */
export const audienceSteps: Measure = {
  name: 'waterfall',
  unit: 'ms',
  promise: { atMost: 1 },
  runs: 3,
  run() {
    const db = openDatabase(millionFolder(), { reading: true })
    const audience = {
      listId: 1,
      rule: rule(db, 'opened any mailing in the last 90 days or joined in the last 30 days'),
      leftOut: rule(db, 'Town is "Town7"'),
      cap: { mailings: 2, days: 30 },
    }
    const began = performance.now()
    const steps = audienceWaterfall(db, audience, NOW)
    const ours = performance.now() - began
    if (steps.at(-1)!.left !== countAudience(db, audience, NOW))
      throw new Error('The last step is not the audience.')
    closeDatabase(db)
    return Promise.resolve({
      ours,
      reference: 1_000,
      notes: { list: steps[0]!.left, left: steps.at(-1)!.left },
    })
  },
}
