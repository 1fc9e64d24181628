import { deviceOf, isCountedSql, sumSql } from '../../core/counting'
import { sql, type RawBuilder, type SqlBool } from 'kysely'
import { variantName } from '../../core/dispatch'
import { type Letter, conditionsOf, renditionName } from '../../core/letters'
import type { Condition } from '../../core/segments'
import { tiers } from '../../core/standing'
import { readFields } from '../people'
import { all, one, q, raw, type Database } from '../query'
import { contentsOf } from '../sending'
import { wholeLetterOf } from '../letters'
import { mailingById, variantsOf } from '../mailings'
import { membersOf, readCatalog, readSegments } from '../segments'
import type { PartResults } from '../../core/results'

/** How a mailing can be looked at: by provider, tier, segment, device, variant, and each field with few values. */
export function waysToSplit(db: Database, mailingId: number): { key: string; name: string }[] {
  const tested = one(
    db,
    q
      .selectFrom('mailing_variants')
      .select('no')
      .where('mailing_id', '=', mailingId)
      .where('no', '>', 0),
  )
  return [
    { key: 'provider', name: 'mailbox provider' },
    { key: 'tier', name: 'engagement now' },
    { key: 'segment', name: 'segment' },
    { key: 'device', name: 'device they opened on' },
    ...(tested ? [{ key: 'variant', name: 'variant' }] : []),
    ...(differs(db, mailingId) ? [{ key: 'rendition', name: 'rendition' }] : []),
    ...readFields(db)
      .filter(({ kind }) => ['text', 'choice', 'choices', 'yesno'].includes(kind))
      .filter(({ key }) => key !== 'first_name' && key !== 'last_name')
      .map(({ key, name }) => ({ key: `field:${key}`, name })),
  ]
}

/** Parts that are shown; the rest is one. */
const MOST = 12

/** What came of a mailing by parts, the largest first; null where it can't be looked at so. */
export function resultsBy(
  db: Database,
  mailingId: number,
  by: string,
  now: number,
): PartResults[] | null {
  if (!waysToSplit(db, mailingId).some(({ key }) => key === by)) return null
  switch (by) {
    case 'provider':
      return byProvider(db, mailingId)
    case 'variant':
      return grouped(db, mailingId, sql`char(65 + r.variant)`, sql``, () => null)
    case 'rendition':
      return byRendition(db, mailingId)
    case 'device':
      return byDevice(db, mailingId)
    case 'tier':
      return ofRules(
        db,
        mailingId,
        tiers.toReversed().map((tier) => [tier, { kind: 'tier', of: [tier] }]),
        now,
      )
    case 'segment':
      return ofRules(
        db,
        mailingId,
        readSegments(db).map(({ id, name }) => [name, { kind: 'segment', segmentId: id }]),
        now,
      )
    default:
      return byField(db, mailingId, by.slice('field:'.length))
  }
}

/** From the roll-up; who was erased has no provider any more. */
function byProvider(db: Database, mailingId: number): PartResults[] {
  const rows = all(
    db,
    raw(sql<Counted & { part: string | null }>`
      select nullif(domain, '') as part, recipients, delivered, opened, clicked, left_list as "left", bounced, complained
      from mailing_providers where mailing_id = ${mailingId} and recipients > 0 order by recipients desc, domain`),
  )
  return largest(rows, (domain) => ({
    kind: 'address',
    part: 'domain',
    test: { is: 'equal', text: domain },
  }))
}

/** Whether a mailing's letter goes out in several versions. */
function differs(db: Database, mailingId: number): boolean {
  return [...sentLetters(db, mailingId).values()].some(
    ({ document }) => conditionsOf(document).rules.length > 0,
  )
}

/** By what was shown to them when their message was made. A rendition is told by what it has and others lack. */
function byRendition(db: Database, mailingId: number): PartResults[] {
  const rows = all(
    db,
    raw(sql<Counted & { variant: number; truth: number }>`
      select coalesce(r.variant, 0) as variant, r.truth as truth, ${counts}
      from recipients as r where r.mailing_id = ${mailingId} and r.truth is not null group by 1, 2`),
  )
  const letters = sentLetters(db, mailingId)
  const parts = new Map<string, Counted[]>()
  for (const { variant, truth, ...numbers } of rows) {
    const { document } = letters.get(variant)!
    const name = renditionName(document, truth, readCatalog(db))
    const whole = letters.size > 1 ? `${variantName(variant)}: ${name}` : name
    parts.set(whole, [...(parts.get(whole) ?? []), numbers])
  }
  return [...parts]
    .map(([name, same]) => ({ ...summed(same), name, rule: null }))
    .toSorted((a, b) => b.recipients - a.recipients)
}

/** What went out of each variant; of the mailing itself where nothing was tried. */
export function sentLetters(db: Database, mailingId: number): Map<number, Letter> {
  const kept = contentsOf(db, mailingId)
  if (kept.length) return new Map(kept.map(({ no, content }) => [no, content.letter]))
  const variants = variantsOf(db, mailingId)
  const letters = variants.length
    ? variants.map(({ no, letter_id }) => [no, letter_id] as const)
    : [[0, mailingById(db, mailingId)!.letter_id] as const]
  return new Map(letters.map(([no, letter]) => [no, wholeLetterOf(db, letter)]))
}

function byField(db: Database, mailingId: number, key: string): PartResults[] {
  const { kind } = readFields(db).find((field) => field.key === key)!
  const value = sql`json_extract(p.fields, ${`$.${key}`})`
  // Somebody with several values is in the part of each.
  const several = sql`left join json_each(case when ${value} is null then '[null]' else ${value} end) as v`
  const unknown: Condition = { kind: 'field', key, test: { is: 'empty' } }
  const test = (text: string): Condition => ({
    kind: 'field',
    key,
    test:
      kind === 'choices'
        ? { is: 'includes', text }
        : kind === 'yesno'
          ? { is: text as 'yes' | 'no' }
          : { is: 'equal', text },
  })
  const part = {
    choices: sql`v.value`,
    yesno: sql`case ${value} when 1 then 'yes' when 0 then 'no' end`,
  }[kind as string]
  const join = kind === 'choices' ? several : sql``
  return grouped(db, mailingId, part ?? value, join, test, unknown)
}

const counts = sql`count(*) as recipients,
  ${sumSql('delivered')} as delivered, ${sumSql('opened')} as opened, ${sumSql('clicked')} as clicked,
  ${sumSql('left')} as "left", ${sumSql('bounced')} as bounced, ${sumSql('complained')} as complained`

type Counted = Omit<PartResults, 'rule' | 'name'>

function grouped(
  db: Database,
  mailingId: number,
  part: RawBuilder<unknown>,
  join: RawBuilder<unknown>,
  ruleOf: (value: string) => Condition | null,
  unknown: Condition | null = null,
): PartResults[] {
  const rows = all(
    db,
    raw(sql<Counted & { part: string | null }>`
      select ${part} as part, ${counts}
      from recipients as r join people as p on p.id = r.person_id ${join}
      where r.mailing_id = ${mailingId} group by 1 order by recipients desc, 1`),
  )
  return largest(rows, ruleOf, unknown)
}

/** The largest parts, and the rest as one. */
function largest(
  rows: readonly (Counted & { part: string | null })[],
  ruleOf: (value: string) => Condition | null,
  unknown: Condition | null = null,
): PartResults[] {
  const shown = rows.length > MOST ? rows.slice(0, MOST - 1) : rows
  const rest = rows.slice(shown.length)
  return [
    ...shown.map(({ part: value, ...numbers }) => ({
      ...numbers,
      name: value ?? 'not known',
      rule: value === null ? unknown : ruleOf(String(value)),
    })),
    ...(rest.length ? [{ ...summed(rest), name: `${rest.length} others`, rule: null }] : []),
  ]
}

function summed(rows: readonly Counted[]): Counted {
  const sum = (key: keyof Counted) => rows.reduce((total, row) => total + row[key], 0)
  return {
    recipients: sum('recipients'),
    delivered: sum('delivered'),
    opened: sum('opened'),
    clicked: sum('clicked'),
    left: sum('left'),
    bounced: sum('bounced'),
    complained: sum('complained'),
  }
}

/** Of each rule, what came of those who are in it now. */
function ofRules(
  db: Database,
  mailingId: number,
  rules: readonly (readonly [string, Condition])[],
  now: number,
): PartResults[] {
  return rules
    .slice(0, MOST)
    .map(([name, rule]) => {
      const isIn: RawBuilder<SqlBool> = sql<SqlBool>`${membersOf(db, rule, now)}`
      const found = one(
        db,
        raw(sql<Counted>`
          select ${counts} from recipients as r join facts on facts.person_id = r.person_id
          where r.mailing_id = ${mailingId} and ${isIn}`),
      )!
      return { ...found, name, rule }
    })
    .filter(({ recipients }) => recipients > 0)
}

/** By the device of each person's opens; who opened on several is in the part of each. */
function byDevice(db: Database, mailingId: number): PartResults[] {
  const opens = all(
    db,
    raw(sql<{ agent: string; person: string; clicked: number; left: number }>`
      select distinct g.text as agent, a.person_id || ' ' || a.round as person,
        ${isCountedSql('clicked')} as clicked, ${isCountedSql('left')} as "left"
      from acts as a join agents as g on g.id = a.agent_id
        join recipients as r on r.mailing_id = a.mailing_id and r.person_id = a.person_id and r.round = a.round
      where a.mailing_id = ${mailingId} and a.kind = 'open' and a.verdict = 'human'`),
  )
  const parts = new Map<string, Map<string, { clicked: number; left: number }>>()
  for (const { agent, person, clicked, left } of opens) {
    const device = deviceOf(agent)
    if (!parts.has(device)) parts.set(device, new Map())
    parts.get(device)!.set(person, { clicked, left })
  }
  return [...parts]
    .map(([name, people]) => {
      const did = [...people.values()]
      const sum = (what: 'clicked' | 'left') => did.reduce((total, one) => total + one[what], 0)
      const n = people.size
      return {
        name,
        recipients: n,
        delivered: n,
        opened: n,
        clicked: sum('clicked'),
        left: sum('left'),
        bounced: 0,
        complained: 0,
        rule: null,
      }
    })
    .sort((a, b) => b.recipients - a.recipients)
}
