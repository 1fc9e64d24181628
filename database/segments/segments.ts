import { sql, type Expression, type SqlBool } from 'kysely'
import {
  fold,
  rankedPlaces,
  rankedSql,
  readRule,
  readyRule,
  ruleToSql,
  type Asked,
  type Catalog,
  type Ranking,
  type ReadyRule,
  type Rule,
} from '../../core/segments'
import { DAY } from '../../core/time'
import { readAccount } from '../account'
import { ownFields, readFields, readGoneTags, readTags } from '../people'
import { all, one, q, raw, run, transact, type Database } from '../query'

/** A saved segment. */
export interface Segment {
  id: number
  name: string
  rule: Rule
  version: number
  frozenAt: number | null
  /** The query in SQL by which its people were found; such a segment is frozen. */
  query: string | null
}

/** A rule that matches nobody: what a stored rule that can't be read becomes. */
const nobody: Rule = { kind: 'any', of: [] }

export function readSegments(db: Database): Segment[] {
  return all(
    db,
    q.selectFrom('segments').selectAll().where('deleted_at', 'is', null).orderBy('name'),
  ).map((row) => ({
    id: row.id,
    name: row.name,
    rule: readRule(JSON.parse(row.rule)) ?? nobody,
    version: row.version,
    frozenAt: row.frozen_at,
    query: row.query,
  }))
}

export function segmentById(db: Database, id: number): Segment | undefined {
  return readSegments(db).find((segment) => segment.id === id)
}

/** Whether another segment than `except` is called so, whatever its case and accents. */
export function isNameTaken(db: Database, name: string, except: number | null = null): boolean {
  return readSegments(db).some((other) => other.id !== except && fold(other.name) === fold(name))
}

/** Saves a new segment; its id. */
export function addSegment(db: Database, name: string, rule: Rule, now: number): number {
  return run(
    db,
    q
      .insertInto('segments')
      .values({ name, rule: JSON.stringify(rule), created_at: now, updated_at: now }),
  ).id
}

/** Changes a segment over the version its editor saw. The new version, or null where somebody was faster. */
export function changeSegment(
  db: Database,
  id: number,
  change: { name: string; rule: Rule },
  sawVersion: number,
  now: number,
): number | null {
  const { changes } = run(
    db,
    q
      .updateTable('segments')
      .set({
        name: change.name,
        rule: JSON.stringify(change.rule),
        version: sawVersion + 1,
        updated_at: now,
      })
      .where('id', '=', id)
      .where('version', '=', sawVersion)
      .where('frozen_at', 'is', null),
  )
  return changes ? sawVersion + 1 : null
}

/** Deletes a segment; for a day it can be brought back. Those deleted before that go for good. */
export function deleteSegment(db: Database, id: number, now: number): boolean {
  return transact(db, () => {
    run(db, q.deleteFrom('segments').where('deleted_at', '<', now - DAY))
    const gone = q
      .updateTable('segments')
      .set({ deleted_at: now })
      .where('id', '=', id)
      .where('deleted_at', 'is', null)
    return run(db, gone).changes === 1
  })
}

/** Brings back a deleted segment, as it was; under another name where its own was given to another meanwhile. */
export function restoreSegment(db: Database, id: number): boolean {
  return transact(db, () => {
    const gone = one(
      db,
      q
        .selectFrom('segments')
        .select('name')
        .where('id', '=', id)
        .where('deleted_at', 'is not', null),
    )
    if (!gone) return false
    let { name } = gone
    for (let n = 2; isNameTaken(db, name, id); n++) name = `${gone.name} ${n}`
    run(db, q.updateTable('segments').set({ deleted_at: null, name }).where('id', '=', id))
    return true
  })
}

/** Keeps the members of a rule as they are now, as a segment of its own; its id. */
export function freezeRule(db: Database, name: string, rule: Rule, now: number): number {
  return transact(db, () => {
    const members = membersOf(db, rule, now)
    const id = addSegment(db, name, rule, now)
    run(db, q.updateTable('segments').set({ frozen_at: now }).where('id', '=', id))
    run(
      db,
      q
        .insertInto('frozen_people')
        .columns(['segment_id', 'person_id'])
        .expression((eb) =>
          eb
            .selectFrom('facts')
            .select([eb.val(id).as('segment_id'), 'person_id'])
            .where(() => members),
        ),
    )
    return id
  })
}

/** Keeps the people whom a query found as a segment that stays as it is; its id, and how many are in it. */
export function freezePeople(
  db: Database,
  name: string,
  query: string,
  ids: readonly number[],
  now: number,
): { id: number; people: number } {
  return transact(db, () => {
    const id = addSegment(db, name, nobody, now)
    run(db, q.updateTable('segments').set({ frozen_at: now, query }).where('id', '=', id))
    const put = db.sqlite.prepare(
      'insert or ignore into frozen_people (segment_id, person_id) select ?, id from people where id = ?',
    )
    let people = 0
    for (const person of ids) people += put.run(id, person).changes
    return { id, people }
  })
}

/** Where a segment is used: mailings whose audience it is, sequences it opens or closes, and other segments. */
export function usesOfSegment(db: Database, id: number) {
  const mentions = (rule: string | null) =>
    rule !== null && new RegExp(`"(kind|is)":"segment","segmentId":${id}\\b`).test(rule)
  // A start names one in more than one way.
  const inMap = (map: string) => new RegExp(`"segmentId":${id}\\b`).test(map)
  const isGoal = (plan: string) => new RegExp(`"is":"(enters|leaves)","what":"${id}"`).test(plan)
  return {
    mailings: all(
      db,
      q
        .selectFrom('mailings')
        .innerJoin('letters', 'letters.id', 'mailings.letter_id')
        .select(['mailings.id', 'name', 'state', 'rule', 'left_out', 'started_at', 'document'])
        .select('mailings.plan'),
    )
      // A letter's own rules count until it has begun to go out.
      .filter(
        ({ rule, left_out, document, started_at, plan }) =>
          isGoal(plan) ||
          mentions(rule) ||
          mentions(left_out) ||
          (started_at === null && mentions(document)),
      )
      .map(({ id, name, state }) => ({ id, name, state })),
    sequences: all(db, q.selectFrom('sequences').select(['id', 'name', 'state', 'map']))
      .filter(
        ({ id: sequence, state, map }) =>
          state !== 'ended' && [map, ...mapsThatLead(db, sequence)].some(inMap),
      )
      .map(({ id, name, state }) => ({ id, name, state })),
    segments: all(
      db,
      q.selectFrom('segments').select(['id', 'name', 'rule']).where('deleted_at', 'is', null),
    ).filter((segment) => segment.id !== id && mentions(segment.rule)),
  }
}

/** The maps by which people come into a sequence, or are led who are inside: what is drawn may be another by now. */
const mapsThatLead = (db: Database, sequence: number): string[] =>
  all(
    db,
    raw(sql<{ map: string }>`
      select v.map from sequence_versions as v join sequences as s on s.id = v.sequence_id
      where v.sequence_id = ${sequence} and (v.version = s.version or exists (
        select 1 from sequence_standing as n where n.sequence_id = v.sequence_id and n.version = v.version
          and n.state = 'inside' and n.people > 0))`),
  ).map(({ map }) => map)

/** Everything a rule may refer to. */
export function readCatalog(db: Database): Catalog {
  const byId = (rows: { id: number; name: string }[]) =>
    new Map(rows.map(({ id, name }) => [id, name]))
  const account = readAccount(db)
  return {
    // Retired fields are not offered any more, but what asks for them goes on as it was.
    fields: new Map(
      [...readFields(db), ...ownFields(db)].map(({ key, name, kind }) => [key, { name, kind }]),
    ),
    lists: byId(all(db, q.selectFrom('lists').select(['id', 'name']))),
    tags: byId(readTags(db)),
    goneTags: byId(readGoneTags(db)),
    mailings: byId(all(db, q.selectFrom('mailings').select(['id', 'name']))),
    segments: new Map(
      readSegments(db).map(({ id, name, rule, frozenAt }) => [
        id,
        { name, rule, frozen: frozenAt !== null },
      ]),
    ),
    sequences: byId(all(db, q.selectFrom('sequences').select(['id', 'name']))),
    signUps: byId(all(db, q.selectFrom('sign_ups').select(['id', 'name']))),
    imports: new Map(
      all(db, q.selectFrom('imports').select(['id', 'file_name'])).map(
        ({ id, file_name }) => [id, file_name] as const,
      ),
    ),
    moneyDigits: moneyDigitsOf(account?.currency ?? 'GBP'),
    cutOf: (ranking) => cutOf(db, ranking),
  }
}

/** The value of the last person whom a ranking keeps; null where nobody has any. */
function cutOf(db: Database, ranking: Ranking): number | null {
  const value = rankedSql[ranking.by]
  const having = one(db, raw(sql<{ n: number }>`select count(${value}) as n from facts`))!.n
  const places = rankedPlaces(ranking, having)
  if (places === 0) return null
  const down = sql.raw(ranking.end === 'top' ? 'desc' : 'asc')
  const last = sql<{ value: number }>`
    select ${value} as value from facts where ${value} is not null
    order by 1 ${down} limit 1 offset ${places - 1}`
  return one(db, raw(last))!.value
}

/** Digits after the point of a currency (ISO 4217), as the runtime knows them. */
export function moneyDigitsOf(currency: string): number {
  return (
    new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions()
      .maximumFractionDigits ?? 2
  )
}

/** The moment and zone a rule is asked for. */
export function askedAt(db: Database, now: number): Asked {
  return { now, zone: readAccount(db)?.zone ?? 'UTC' }
}

/** A rule made ready with what is on file now; null where it refers to something that is not there. */
export function readyNow(db: Database, rule: Rule): ReadyRule | null {
  return readyRule(rule, readCatalog(db)).rule
}

/** The condition on rows of `facts` that holds for the members of a rule. */
export function membersOf(db: Database, rule: Rule, now: number): Expression<SqlBool> {
  return ruleToSql(readyNow(db, rule), askedAt(db, now))
}

/** The same as a condition on rows of `people`. */
export function isMember(db: Database, rule: Rule, now: number): Expression<SqlBool> {
  return sql<SqlBool>`exists (select 1 from facts where facts.person_id = people.id and ${membersOf(db, rule, now)})`
}

/** How many people a rule keeps. */
export function countMembers(db: Database, rule: Rule, now: number): number {
  return one(
    db,
    q
      .selectFrom('facts')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where(() => membersOf(db, rule, now)),
  )!.n
}

/** How many people each of some rules keeps, all of them in one pass over the people. */
export function countSeveral(db: Database, rules: readonly Rule[], now: number): number[] {
  if (rules.length === 0) return []
  const counts = rules.map((rule) => sql`count(*) filter (where ${membersOf(db, rule, now)})`)
  const found = one(
    db,
    raw(sql<{ counts: string }>`select json_array(${sql.join(counts)}) as counts from facts`),
  )!
  return JSON.parse(found.counts) as number[]
}
