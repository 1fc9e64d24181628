import { parseRule, type Rule } from '../core/segments'
import { sql } from 'kysely'
import { closeDatabase, one, openDatabase, raw, type Database } from '../database'
import { DAY } from '../core/time'
import { audienceWaterfall, countAudience, readCatalog } from '../database/segments'
import type { Measure } from './harness'
import { millionFolder, NOW } from './million'

const rule = (db: Database, text: string): Rule => {
  const parsed = parseRule(text, readCatalog(db))
  if (!parsed.ok) throw new Error(parsed.message)
  return parsed.rule
}

/**
 * Who drops out at each step, of a million people: a segment in, one out, and a frequency cap; against one straight SQL of the
 * last step alone. */
export const audienceSteps: Measure = {
  name: 'waterfall',
  unit: 'ms',
  promise: { atMost: 1.5 },
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
    const straightBegan = performance.now()
    const straight = straightCount(db)
    const reference = performance.now() - straightBegan
    const left = steps.at(-1)!.left
    if (left !== countAudience(db, audience, NOW) || left !== straight)
      throw new Error(`The last step (${left}) is not the audience (${straight}).`)
    closeDatabase(db)
    return Promise.resolve({
      ours,
      reference,
      notes: { list: steps[0]!.left, left: steps.at(-1)!.left },
    })
  },
}

function straightCount(db: Database): number {
  return one(
    db,
    raw(sql<{
      n: number
    }>`select count(*) as n from people as p join facts as f on f.person_id = p.id
      where exists (select 1 from subscriptions as s where s.person_id = p.id and s.list_id = 1 and s.state = 'subscribed')
        and not exists (select 1 from set_aside as a where a.person_id = p.id)
        and (f.last_opened_at >= ${NOW - 90 * DAY} or p.joined_at >= ${NOW - 30 * DAY})
        and json_extract(p.fields, '$.town') is not 'Town7'
        and (select count(*) from recipients as r where r.person_id = p.id and r.accepted_at > ${NOW - 30 * DAY}) < 2`),
  )!.n
}
