import { sql, type SqlBool } from 'kysely'
import type { Goal, Measure } from '../../core/dispatch'
import { compareVariants, type DecidedOn, type Outcome } from '../../core/experiments'
import { linksOf } from '../../core/letters'
import { isCountedSql, MONEY_WINDOW, sumSql } from '../../core/counting'
import { DAY } from '../../core/time'
import { wholeLetterOf } from '../letters'
import { planOf, type Mailing } from '../mailings'
import { all, one, q, raw, run, type Database } from '../query'
import type { VariantCounts } from '../../core/experiments'

/** What came of each variant of a test's part, by variant. */
export function variantCounts(
  db: Database,
  mailing: Pick<Mailing, 'id'>,
  goal: Goal | null,
  part = 0,
): VariantCounts[] {
  const delivered = isCountedSql('delivered')
  const counted = sql<VariantCounts>`
    select r.variant as variant, count(*) as recipients,
      ${sumSql('delivered')} as delivered,
      ${sumSql('opened')} as opened,
      ${sumSql('clicked')} as clicked,
      ${sumSql('left')} as "left",
      sum(${delivered} and ${goal ? reached(goal) : sql`0`}) as goal,
      sum(r.money) as money,
      sum(r.money * r.money) as moneySquares
    from (
      select *, ${moneyOf} as money from recipients as r
      where r.mailing_id = ${mailing.id} and r.part = ${part} and r.variant is not null
    ) as r
    group by r.variant order by r.variant`
  return all(db, raw(counted))
}

/** The same as one looks at it: of each variant, what the test measures. */
export function outcomesOf(counts: readonly VariantCounts[], measure: Measure): Outcome[] {
  return counts.map(({ delivered, opened, clicked, goal, money, moneySquares }) => {
    const hits = { open: opened, click: clicked, goal, money: 0 }[measure]
    return measure === 'money'
      ? { kind: 'mean', sum: money, squares: moneySquares, of: delivered }
      : { kind: 'rate', hits, of: delivered }
  })
}

/**
 * How many of the mailed and of those held out reached the goal: within its days after they got the mailing, or after they
 * would have. Who is held out from a part that has not begun is not counted yet, as those are not whom it would be for.
 */
export function goalCounts(db: Database, mailing: Pick<Mailing, 'id'>, goal: Goal) {
  const mailed = sql<{ hits: number; of: number }>`
    select coalesce(sum(${reached(goal)}), 0) as hits, count(*) as "of"
    from recipients as r where r.mailing_id = ${mailing.id} and ${isCountedSql('delivered')}`
  const heldOut = sql<{ hits: number; of: number }>`
    select coalesce(sum(${reached(goal)}), 0) as hits, count(*) as "of"
    from (
      select mailing_id, person_id, at as accepted_at from holdouts
      where mailing_id = ${mailing.id} and part is not null
    ) as r`
  return { mailed: one(db, raw(mailed))!, heldOut: one(db, raw(heldOut))! }
}

/**
 * Until when people may still reach a mailing's goal: its days after the last message was accepted, or after somebody was
 * held out. Null where that is over.
 */
export function goalOpenUntil(
  db: Database,
  mailing: Pick<Mailing, 'id'>,
  goal: Goal,
  now: number,
): number | null {
  const last = sql<{ at: number | null }>`
    select max(at) as at from (
      select max(accepted_at) as at from recipients where mailing_id = ${mailing.id}
      union all select max(at) from holdouts where mailing_id = ${mailing.id} and part is not null)`
  const { at } = one(db, raw(last))!
  const until = (at ?? now) + goal.days * DAY
  return until > now ? until : null
}

/** Who of the mailed reached the goal, and when they first did; those with a number after `after`, by it. */
export function goalReachers(
  db: Database,
  mailing: Pick<Mailing, 'id'>,
  goal: Goal,
  after: number,
  limit: number,
) {
  const reachers = sql<{ id: number; address: string; at: number }>`
    select r.person_id as id, p.address as address, ${reachedAt(goal)} as at
    from recipients as r join people as p on p.id = r.person_id
    where r.mailing_id = ${mailing.id} and r.person_id > ${after}
      and ${isCountedSql('delivered')} and ${reached(goal)}
    order by r.person_id limit ${limit}`
  return all(db, raw(reachers))
}

/** What a mailing brought: orders, people who ordered, and money. Each order counts for one mailing only. */
export function moneyOfMailing(db: Database, mailingId: number) {
  const brought = sql<{ orders: number; buyers: number; money: number }>`
    select count(*) as orders, count(distinct o.person_id) as buyers, coalesce(sum(o.money), 0) as money
    from recipients as r indexed by recipients_who_clicked join orders as o on ${isFor}
    where r.mailing_id = ${mailingId} and ${isCountedSql('clicked')}`
  return one(db, raw(brought))!
}

/** The orders that count for a mailing, by their numbers after one; see {@link moneyOfMailing}. */
export function ordersOfMailing(db: Database, mailingId: number, after: number, limit: number) {
  const rows = sql<{ id: number; person: number; number: string; at: number; money: number }>`
    select o.id, o.person_id as person, o.number, o.at, o.money
    from recipients as r indexed by recipients_who_clicked join orders as o on ${isFor}
    where r.mailing_id = ${mailingId} and ${isCountedSql('clicked')} and o.id > ${after}
    order by o.id limit ${limit}`
  return all(db, raw(rows))
}

/** Where the letter of a mailing leads, each address once. */
export function linkAddresses(db: Database, { letter_id }: Pick<Mailing, 'letter_id'>): string[] {
  const links = linksOf(wholeLetterOf(db, letter_id).document)
  return [...new Set(links.map(({ url }) => url))].filter((url) => /^https?:/.test(url))
}

/** Sets which variant the rest gets, once, and keeps the figures as they stand. Whether it was set now. */
export function decideTest(
  db: Database,
  mailing: Pick<Mailing, 'id' | 'plan'>,
  winner: number,
  by: string,
  now: number,
): boolean {
  const { test, goal } = planOf(mailing)
  const measure = test?.measure ?? 'open'
  const counts = variantCounts(db, mailing, goal)
  const outcomes = outcomesOf(counts, measure)
  const figures: DecidedOn = {
    measure,
    variants: compareVariants(outcomes).variants.map((one, i) => ({
      variant: counts[i]!.variant,
      of: outcomes[i]!.of,
      ...one,
    })),
  }
  const { changes } = run(
    db,
    q
      .updateTable('mailings')
      .set({ winner, decided_at: now, decided_by: by, decided_on: JSON.stringify(figures) })
      .where('id', '=', mailing.id)
      .where('winner', 'is', null),
  )
  return changes === 1
}

/** An order `o` that counts for the mailing of recipient `r`: it is the last that was clicked within the window before. */
const isFor = sql<SqlBool>`o.person_id = r.person_id
  and o.at between r.clicked_at and r.clicked_at + ${MONEY_WINDOW}
  and not exists (
    select 1 from recipients as later
    where later.person_id = r.person_id
      and (later.mailing_id, later.round) <> (r.mailing_id, r.round)
      and later.clicked_at > r.clicked_at and later.clicked_at <= o.at
      and later.clicked_at >= o.at - ${MONEY_WINDOW})`

const moneyOf = sql<number>`case when r.clicked_at is null then 0 else
  (select coalesce(sum(o.money), 0) from orders as o where ${isFor}) end`

/** Whether somebody `r` did what the goal is within its days after the message came. */
const reached = (goal: Goal) => sql<SqlBool>`${reachedAt(goal)} is not null`

/** When they first did. */
function reachedAt({ is, what, days }: Goal) {
  const within = (at: string) =>
    sql`${sql.ref(at)} between r.accepted_at and r.accepted_at + ${days * DAY}`
  switch (is) {
    case 'order':
      return sql<number>`(select min(g.at) from orders as g where g.person_id = r.person_id and ${within('g.at')})`
    case 'event':
      return sql<number>`(select min(g.at) from events as g where g.person_id = r.person_id and g.name = ${what} and ${within('g.at')})`
    case 'enters':
    case 'leaves':
      return sql<number>`(select g.at from goal_hits as g where g.mailing_id = r.mailing_id and g.person_id = r.person_id)`
    case 'link':
      return sql<number>`(select min(g.at) from acts as g
        join mailing_links as l on l.mailing_id = g.mailing_id and l.no = g.link
        where g.kind = 'click' and g.mailing_id = r.mailing_id and g.person_id = r.person_id
          and g.verdict = 'human' and l.url = ${what} and ${within('g.at')})`
  }
}
