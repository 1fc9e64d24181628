import { sql, type RawBuilder } from 'kysely'
import {
  conditionsOf,
  renditionsOf,
  type LetterDocument,
  type TruthCount,
} from '../../core/letters'
import { ruleToSql, type Rule } from '../../core/segments'
import { eligible, type Audience, askedAt, readyNow } from '../segments'
import { all, one, raw, type Database } from '../query'

/** For how many of the audience a letter's rules are so or so. One pass over the audience. */
export function countTruths(
  db: Database,
  audience: Audience,
  rules: readonly Rule[],
  now: number,
): TruthCount[] {
  countsBits(db)
  const asked = sql<{ counts: string }>`
    select bit_counts(${bitsOf(db, rules, now)}) as counts
    from people join facts on facts.person_id = people.id where ${eligible(db, audience, now)}`
  const counts = JSON.parse(one(db, raw(asked))!.counts) as [number, number][]
  return counts.map(([truth, people]) => ({ truth, people })).sort((a, b) => a.truth - b.truth)
}

const counting = new WeakSet<object>()

/** `bit_counts(n)`: how many rows have each n. Grouping would sort a million rows; this only counts them. */
function countsBits({ sqlite }: Database) {
  if (counting.has(sqlite)) return
  counting.add(sqlite)
  sqlite.aggregate('bit_counts', {
    start: () => new Map<number, number>(),
    step: (counts: Map<number, number>, bits: unknown) =>
      void counts.set(bits as number, (counts.get(bits as number) ?? 0) + 1),
    result: (counts: Map<number, number>) => JSON.stringify([...counts]),
  })
}

/** The versions of a letter that go out to an audience. */
export function renditionsFor(
  db: Database,
  document: LetterDocument,
  audience: Audience,
  now: number,
) {
  const conditions = conditionsOf(document)
  return renditionsOf(document, countTruths(db, audience, conditions.rules, now), conditions)
}

/** Which of the rules hold for some people, as bits. Who is not on file is not in the answer. */
export function truthsOf(
  db: Database,
  personIds: readonly number[],
  rules: readonly Rule[],
  now: number,
): Map<number, number> {
  const asked = sql<{ person_id: number; truth: number }>`
    select facts.person_id, ${bitsOf(db, rules, now)} as truth from facts
    where facts.person_id in (select value from json_each(${JSON.stringify(personIds)}))`
  return new Map(all(db, raw(asked)).map(({ person_id, truth }) => [person_id, truth]))
}

/** Somebody of the audience for whom the rules are so: the one after `offset` others. */
export function readerOf(
  db: Database,
  audience: Audience,
  rules: readonly Rule[],
  truths: readonly number[],
  now: number,
  offset: number,
): number | undefined {
  const asked = sql<{ id: number }>`
    select people.id from people join facts on facts.person_id = people.id
    where ${eligible(db, audience, now)}
      and ${bitsOf(db, rules, now)} in (select value from json_each(${JSON.stringify(truths)}))
    order by people.id limit 1 offset ${offset}`
  return all(db, raw(asked))[0]?.id
}

/** The rules as one number: bit `n` is set where rule `n` holds. */
function bitsOf(db: Database, rules: readonly Rule[], now: number): RawBuilder<number> {
  if (rules.length === 0) return sql`0`
  const asked = askedAt(db, now)
  return sql`${sql.join(
    rules.map((rule, n) => sql`(${ruleToSql(readyNow(db, rule), asked)}) * ${2 ** n}`),
    sql` + `,
  )}`
}
