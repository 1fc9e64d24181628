import { sql, type Expression, type SqlBool } from 'kysely'
import type { DispatchPlan, Fingerprint, GoesOut, Happening } from '../../core/dispatch'
import { writeRule, type Rule } from '../../core/segments'
import { tiers } from '../../core/standing'
import { localInputToTime, timeToLocalInput } from '../../core/time'
import { readAccount } from '../account'
import { eligible, type Audience, readCatalog, segmentById } from '../segments'
import { letterheadOf, wholeLetterOf } from '../letters'
import { listById } from '../people'
import { audienceOf, mailingById, type Mailing } from './mailings'
import { inTier, planOf, zonesOfPeople } from './parts'
import { senderOf } from './sender'
import { one, q, type Database } from '../query'
import { markOf } from '../versions'

/** What would happen were a mailing sent off as it stands, at a time or (null) now; null while it has no list. */
export function happeningOf(
  db: Database,
  mailing: Mailing,
  at: number | null,
  now: number,
): Happening | null {
  const account = readAccount(db)!
  const audience = audienceOf(db, mailing)
  if (!audience) return null
  const plan = planAt(planOf(mailing), at, account.zone)
  const sender = senderOf(db, mailing)
  const catalog = readCatalog(db)
  const paces = [plan.perMinute, account.pace_per_minute].filter((one) => one !== null)
  const { eligible, heldOut, inTest, each, inTiers, atProviders } = countHappening(
    db,
    mailing,
    audience,
    plan,
    now,
  )
  const mailed = eligible - heldOut
  const times = plan.pace === 'local-time' ? localTimes(db, plan, account.zone, now) : null
  return {
    subject: wholeLetterOf(db, mailing.letter_id).subject,
    sender: `${sender.name} <${sender.address}>`,
    list: listById(db, audience.listId)?.name ?? '',
    among: audience.rule && writeRule(audience.rule, catalog),
    without: audience.leftOut ? writeRule(audience.leftOut, catalog) : null,
    eligible,
    heldOut,
    mailed,
    test: plan.test && { of: plan.test.of, people: inTest, each },
    plan,
    tiers: plan.pace === 'widening' ? inTiers : null,
    perMinute: paces.length ? Math.min(...paces) : null,
    providers: plan.providers.map(({ perMinute }, i) => ({ perMinute, people: atProviders[i]! })),
    begins: times ? times.first : at,
    lastBegins: times?.last ?? null,
  }
}

/** A plan with the time that is wished now, where it goes by each reader's clock. */
function planAt(plan: DispatchPlan, at: number | null, zone: string): DispatchPlan {
  return plan.pace === 'local-time' && at !== null
    ? { ...plan, localAt: timeToLocalInput(at, zone) }
    : plan
}

/** When the plan's time is somewhere first, and when somewhere last; what is over by now is now. */
function localTimes(db: Database, { zoneField, localAt }: DispatchPlan, zone: string, now: number) {
  if (!zoneField || !localAt) return null
  const zones = [zone, ...zonesOfPeople(db, zoneField).map((one) => one.zone)]
  const times = zones
    .flatMap((one) => localInputToTime(localAt, one) ?? [])
    .map((one) => Math.max(now, one))
  return times.length ? { first: Math.min(...times), last: Math.max(...times) } : null
}

/** How many would be drawn for what, by the same lots as when it goes out. One pass over the audience. */
function countHappening(
  db: Database,
  mailing: Mailing,
  audience: Audience,
  plan: DispatchPlan,
  now: number,
) {
  const { test, holdout, providers } = plan
  const drawn = (lot: string) => sql<number>`slot_of(${lot}, ${mailing.id}, people.id)`
  const out: Expression<SqlBool> = holdout > 0 ? sql`${drawn('holdout')} < ${holdout}` : sql`0`
  const tried: Expression<SqlBool> = test
    ? test.share < 1
      ? sql`${drawn('test')} < ${test.share}`
      : sql`1`
    : sql`0`
  const sum = (condition: Expression<SqlBool>) =>
    sql<number>`coalesce(sum(not (${out}) and (${condition})), 0)`
  const variant = (no: number) =>
    sql<SqlBool>`${tried} and cast(${drawn('variant')} * ${test!.variants.length} as integer) = ${no}`
  const list = (sums: Expression<number>[]) =>
    sums.length ? sql<string>`json_array(${sql.join(sums)})` : sql<string>`'[]'`
  const order = tiers.toReversed()
  const counted = one(
    db,
    q
      .selectFrom('people')
      .select((eb) => [
        eb.fn.countAll<number>().as('eligible'),
        sql<number>`coalesce(sum(${out}), 0)`.as('heldOut'),
        sum(tried).as('inTest'),
        list((test?.variants ?? []).map((_, no) => sum(variant(no)))).as('each'),
        list(plan.pace === 'widening' ? order.map((tier) => sum(inTier(tier, now))) : []).as(
          'inTiers',
        ),
        list(providers.map(({ domain }) => sum(sql<SqlBool>`people.domain = ${domain}`))).as(
          'atProviders',
        ),
      ])
      .where(() => eligible(db, audience, now)),
  )!
  return {
    ...counted,
    each: JSON.parse(counted.each) as number[],
    inTiers: JSON.parse(counted.inTiers) as number[],
    atProviders: JSON.parse(counted.atProviders) as number[],
  }
}

/** What of a mailing would go out, and to whom, as marks. `when`: the wished time, null for at once. */
export function goesOut(db: Database, mailing: Mailing, when: number | null): GoesOut {
  const account = readAccount(db)!
  const plan = planOf(mailing)
  const list = mailing.list_id === null ? null : (listById(db, mailing.list_id) ?? null)
  // The account's pace is in the sentence too.
  const pace = account.pace_per_minute === null ? {} : { atMost: account.pace_per_minute }
  return {
    letter: markOf(lettersOf(db, mailing, plan, account.postal_address)),
    // Whatever time it was set for before, it is set for another now.
    plan: markOf({ ...plan, localAt: null, ...pace }),
    list: markOf(list && [list.id, list.name, list.public_name]),
    rule: markOf([
      mailing.past_cap,
      rulesBehind(db, ruleOf(mailing.rule)),
      rulesBehind(db, ruleOf(mailing.left_out)),
    ]),
    sender: markOf(senderOf(db, mailing)),
    when: when === null ? '' : String(when),
  }
}

/** The marks with the head count, as `Send` hands them back. */
export function fingerprintOf(
  db: Database,
  mailing: Mailing,
  when: number | null,
  mailed: number,
): Fingerprint {
  return { ...goesOut(db, mailing, when), people: mailed }
}

/** All that the bytes of the letters are made from. */
function lettersOf(db: Database, mailing: Mailing, { test }: DispatchPlan, postalAddress: string) {
  const ids = [
    mailing.letter_id,
    ...(test?.of === 'letter'
      ? test.variants.flatMap(({ mailingId }) =>
          mailingId === null ? [] : (mailingById(db, mailingId)?.letter_id ?? []),
        )
      : []),
  ]
  const letters = ids.map((id) => [wholeLetterOf(db, id), letterheadOf(db, id)])
  return [letters, postalAddress, test?.variants ?? null]
}

const ruleOf = (json: string | null): Rule | null =>
  json === null ? null : (JSON.parse(json) as Rule)

/** A rule with the rules of all segments that it asks, and that those ask. */
function rulesBehind(db: Database, rule: Rule | null): unknown {
  if (!rule) return null
  const seen = new Map<number, unknown>()
  function look(part: unknown) {
    if (typeof part !== 'object' || part === null) return
    const { kind, segmentId } = part as { kind?: unknown; segmentId?: unknown }
    if (kind === 'segment' && typeof segmentId === 'number' && !seen.has(segmentId)) {
      const segment = segmentById(db, segmentId)
      seen.set(segmentId, segment ? [segment.rule, segment.frozenAt] : null)
      look(segment?.rule)
    }
    for (const inner of Object.values(part)) look(inner)
  }
  look(rule)
  return [rule, [...seen].toSorted(([a], [b]) => a - b)]
}
