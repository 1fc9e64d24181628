import { parseRule, readyRule, ruleToPredicate, type Rule } from '../core/segments'
import { closeDatabase, one, openDatabase, raw, type Database } from '../database'
import { factsOf, countLines, askedAt, countMembers, readCatalog } from '../database/segments'
import { DAY } from '../core/time'
import { sql } from 'kysely'
import type { Measure } from './harness'
import { millionFolder, NOW } from './million'

const rule = (db: Database, text: string): Rule => {
  const parsed = parseRule(text, readCatalog(db))
  if (!parsed.ok) throw new Error(parsed.message)
  return parsed.rule
}

const WARM =
  'on list "Offers" and (opened any mailing in the last 90 days or joined in the last 30 days) and spent over 50'

/** Twelve lines, three of them in groups within groups. */
const TEN_LINES =
  'on list "Offers" and not on list "Workshop news" and (opened any mailing in the last 90 days or joined in the last 30 days or (bought over 0 times in the last 60 days and first bought in the last 300 days)) and (spent over 50 or bought over 1 times) and not bounced on any mailing in the last 180 days and Town is one of "Town3", "Town7", "Town11"'

const opened = () => openDatabase(millionFolder(), { reading: true })
function timed<T>(work: () => T): { ms: number; result: T } {
  const began = performance.now()
  const result = work()
  return { ms: performance.now() - began, result }
}

/** The count of a rule, against straight SQL over the raw rows with the best index there is for it. */
export const segmentCount: Measure = {
  name: 'segment-count',
  unit: 'ms',
  promise: { atLeast: 20 },
  faster: true,
  runs: 5,
  run() {
    const db = opened()
    const warm = rule(db, WARM)
    countMembers(db, warm, NOW)
    const ours = timed(() => countMembers(db, warm, NOW))
    const reference = timed(() => straightCount(db))
    closeDatabase(db)
    if (ours.result !== reference.result)
      throw new Error(`${ours.result} is not ${reference.result}`)
    return Promise.resolve({
      ours: ours.ms,
      reference: reference.ms,
      notes: { people: ours.result },
    })
  },
}

function straightCount(db: Database): number {
  return one(
    db,
    raw(sql<{ n: number }>`select count(*) as n from people p
      where exists (select 1 from subscriptions s where s.person_id = p.id and s.list_id = 3 and s.state = 'subscribed')
        and (p.joined_at > ${NOW - 30 * DAY} or exists (select 1 from recipients r where r.person_id = p.id and r.opened_at > ${NOW - 90 * DAY}))
        and (select sum(o.money) from orders o where o.person_id = p.id) > 5000`),
  )!.n
}

/** All line counts of a nested rule, against the count of the whole rule alone. */
export const segmentLines: Measure = {
  name: 'segment-lines',
  unit: 'ms',
  promise: { atMost: 3 },
  runs: 3,
  run() {
    const db = opened()
    const ten = rule(db, TEN_LINES)
    countMembers(db, ten, NOW)
    const ours = timed(() => countLines(db, ten, NOW))
    const reference = timed(() => countMembers(db, ten, NOW))
    closeDatabase(db)
    if (ours.result.total !== reference.result)
      throw new Error('The lines do not end in the total.')
    return Promise.resolve({ ours: ours.ms, reference: reference.ms })
  },
}

/** How many people a second the predicate decides, against the promised 50,000. */
export const segmentPerson: Measure = {
  name: 'segment-person',
  unit: 'people/s',
  promise: { atLeast: 1 },
  runs: 3,
  run() {
    const db = opened()
    const asked = askedAt(db, NOW)
    const keeps = ruleToPredicate(readyRule(rule(db, TEN_LINES), readCatalog(db)).rule, asked)
    const people = Array.from({ length: 500 }, (_, i) => factsOf(db, 1 + i * 1_999)!)
    closeDatabase(db)
    let kept = 0
    const TIMES = 400
    const { ms } = timed(() => {
      for (let i = 0; i < TIMES; i++) for (const person of people) if (keeps(person)) kept++
    })
    const rate = (TIMES * people.length) / (ms / 1000)
    return Promise.resolve({ ours: rate, reference: 50_000, notes: { kept: kept / TIMES } })
  },
}
