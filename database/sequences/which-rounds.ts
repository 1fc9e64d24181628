import { sql, type RawBuilder, type SqlBool } from 'kysely'
import { sumSql } from '../../core/counting'
import type { RecipientState } from '../../core/delivery'
import { parseRule, type Rule } from '../../core/segments'
import type { MapFigures, Which } from '../../core/sequences'
import { DAY } from '../../core/time'
import { all, q, raw, type Database } from '../query'
import { membersOf, readCatalog, segmentById } from '../segments'

/** What is wrong with what people are asked in words; null where nothing is. */
export function whoProblem(db: Database, { who }: Which): string | null {
  const read = who === null ? null : parseRule(who, readCatalog(db))
  return read && !read.ok ? read.message : null
}

/**
 * What is asked of the people themselves. Of a segment that is gone, and of a question that can't be read, nobody is: `any` of
 * nothing.
 */
function rulesOfWho(db: Database, { segmentId, signUpId, who }: Which): Rule[] {
  const nobody: Rule = { kind: 'any', of: [] }
  const rules: Rule[] = []
  if (segmentId !== null) rules.push(segmentById(db, segmentId)?.rule ?? nobody)
  if (signUpId !== null) rules.push({ kind: 'signed-up', signUpId, since: null })
  if (who !== null) {
    const read = parseRule(who, readCatalog(db))
    rules.push(read.ok ? read.rule : nobody)
  }
  return rules
}

/** Whether a round (a row of enrolments as `n`) is one of those that are looked at. */
export function isOneOf(db: Database, which: Which, now: number): RawBuilder<SqlBool> {
  const { days, version, start, domain } = which
  const parts = [sql<SqlBool>`true`]
  if (days !== null) parts.push(sql`n.entered_at >= ${now - days * DAY}`)
  if (version !== null) parts.push(sql`n.version = ${version}`)
  if (start !== null) parts.push(sql`n.start is ${start === 'hand' ? null : start}`)
  for (const rule of rulesOfWho(db, which))
    parts.push(sql`n.person_id in (select person_id from facts where ${membersOf(db, rule, now)})`)
  if (domain !== null)
    parts.push(sql`n.person_id in (select id from people where domain = ${domain})`)
  return sql<SqlBool>`(${sql.join(parts, sql` and `)})`
}

/**
 * Counts, row by row, what of a map is counted, and why people left; over all rounds it stands in sums.
 * `heldOutBy`: as which reason those held out stand.
 */
export function figuresOf(
  db: Database,
  id: number,
  which: RawBuilder<SqlBool>,
  heldOutBy: string,
): { figures: MapFigures; left: { why: string; people: number }[] } {
  const places = all(
    db,
    raw(sql<{ state: 'inside' | 'finished' | 'left'; place: string; people: number }>`
      select n.state, case n.state when 'inside' then n.step else coalesce(n.why, '') end as place, count(*) as people
      from enrolments as n where n.sequence_id = ${id} and ${which} group by 1, 2`),
  )
  const some = (is: (row: (typeof places)[number]) => boolean) =>
    places.filter(is).reduce((sum, { people }) => sum + people, 0)
  const isHeld = (place: string) => place === heldOutBy
  const ways = all(
    db,
    raw(sql<{ step: string; way: number; people: number }>`
      select t.step, t.way, count(*) as people from enrolments as n
      join sequence_trail as t on t.sequence_id = n.sequence_id and t.person_id = n.person_id and t.round = n.round
      where n.sequence_id = ${id} and ${which} group by 1, 2`),
  )
  const traffic: Record<string, number[]> = {}
  for (const { step, way, people } of ways) (traffic[step] ??= [])[way] = people
  for (const [step, of] of Object.entries(traffic)) traffic[step] = Array.from(of, (n) => n ?? 0)
  const state = (is: RecipientState) => sql<number>`coalesce(sum(r.state = ${is}), 0)`
  const mailings = all(
    db,
    raw(sql<MapFigures['mailings'][number]>`
      select r.mailing_id as id, ${state('accepted')} as accepted, ${state('complained')} as complained,
        ${sumSql('opened')} as opened, ${sumSql('clicked')} as clicked
      from enrolments as n
      join recipients as r on r.person_id = n.person_id and r.round = n.round
      join mailings as m on m.id = r.mailing_id and m.sequence_id = n.sequence_id
      where n.sequence_id = ${id} and ${which} group by 1`),
  )
  const figures = {
    counts: {
      inside: some(({ state }) => state === 'inside'),
      finished: some(({ state }) => state === 'finished'),
      left: some(({ state, place }) => state === 'left' && !isHeld(place)),
      heldOut: some(({ state, place }) => state === 'left' && isHeld(place)),
    },
    standing: Object.fromEntries(
      places
        .filter(({ state }) => state === 'inside')
        .map(({ place, people }) => [place, people] as const),
    ),
    ...{ traffic, mailings },
  }
  const left = places
    .filter(({ state, place }) => state === 'left' && !isHeld(place))
    .map(({ place, people }) => ({ why: place, people }))
    .sort((a, b) => b.people - a.people)
  return { figures, left }
}

/** The providers of those whom a sequence mailed, the largest first. */
export function providersMailed(db: Database, sequenceId: number): string[] {
  return all(
    db,
    q
      .selectFrom('mailing_providers as p')
      .innerJoin('mailings as m', 'm.id', 'p.mailing_id')
      .select('p.domain')
      .where('m.sequence_id', '=', sequenceId)
      .where('p.domain', '!=', '')
      .groupBy('p.domain')
      .orderBy((eb) => eb.fn.sum('p.recipients'), 'desc')
      .limit(12),
  ).map(({ domain }) => domain)
}

/** The versions by which people came in, the latest first, each with its ways in. */
export function versionsOf(db: Database, sequenceId: number) {
  return all(
    db,
    q
      .selectFrom('sequence_versions')
      .select(['version', 'at'])
      .where('sequence_id', '=', sequenceId)
      .orderBy('version', 'desc'),
  )
}
