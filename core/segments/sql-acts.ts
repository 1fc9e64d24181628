import { isCountedSql } from '../counting'
import { sql, type RawBuilder, type SqlBool } from 'kysely'
import { propertyFamily } from './comparison'
import { fold } from './fold'
import { sinceOf, type Asked } from './moments'
import type { ReadyRule } from './ready'
import { asksWhoWasSent, type MailAct, type Times } from './rule'
import { compareJson, numberIs, type Truth } from './sql-comparisons'

type Leaf<K extends ReadyRule['kind']> = Extract<ReadyRule, { kind: K }>

/** When a recipient did what is asked; null where they did not. */
const momentOf: Record<MailAct, RawBuilder<unknown>> = {
  sent: sql`r.accepted_at`,
  delivered: sql`case when ${isCountedSql('delivered')} then r.accepted_at end`,
  opened: sql`r.opened_at`,
  clicked: sql`r.clicked_at`,
  bounced: sql`case when ${isCountedSql('bounced')} then r.at end`,
  complained: sql`case when ${isCountedSql('complained')} then r.at end`,
  left: sql`r.left_at`,
}

/** What `facts` already has: how many mailings, and the last time. */
const summed: Partial<Record<MailAct, { count: RawBuilder<unknown>; last: RawBuilder<unknown> }>> =
  {
    sent: { count: sql`facts.sent`, last: sql`facts.last_sent_at` },
    opened: { count: sql`facts.opened`, last: sql`+facts.last_opened_at` },
    clicked: { count: sql`facts.clicked`, last: sql`facts.last_clicked_at` },
  }

export function mailToSql(rule: Leaf<'mail'>, asked: Asked): Truth {
  const did = timesToSql(rule, asked)
  if (!asksWhoWasSent(rule)) return did
  const sent = timesToSql({ ...rule, did: 'sent', times: { is: 'at-least', n: 1 } }, asked)
  return sql<SqlBool>`(${sent} and ${did})`
}

function timesToSql({ did, of, times, withinDays }: Leaf<'mail'>, { now }: Asked): Truth {
  const since = sinceOf(withinDays, now)
  const sums = summed[did]
  if (of.which === 'any' && sums) {
    if (since === null) return timesIs(sums.count, times)
    // Whether it happened at all since then is known from the last time; only a higher number must be counted.
    const lately = sql<SqlBool>`coalesce(${sums.last} >= ${since}, 0)`
    if (isOnce(times)) return lately
    if (isNever(times)) return sql<SqlBool>`not ${lately}`
    if (times.is === 'at-least' && times.n > 0)
      return sql<SqlBool>`(${lately} and ${sums.count} >= ${times.n} and ${timesIs(counted(), times)})`
  }
  return timesIs(counted(), times)

  function counted(): RawBuilder<unknown> {
    const at = momentOf[did]
    const during = since === null ? sql`${at} is not null` : sql`${at} >= ${since}`
    if (of.which === 'mailing' && of.link !== null && did === 'clicked')
      return sql`(select count(distinct a.mailing_id) from acts a where a.person_id = facts.person_id and a.mailing_id = ${of.id} and a.link = ${of.link} and a.kind = 'click' and a.verdict = 'human' and a.at >= ${since ?? -8.64e15})`
    if (of.which === 'mailing')
      return sql`(select count(*) from recipients r where r.person_id = facts.person_id and r.mailing_id = ${of.id} and ${during})`
    if (of.which === 'sequence')
      return sql`(select count(*) from mailings m join recipients r on r.mailing_id = m.id and r.person_id = facts.person_id where m.sequence_id = ${of.id} and ${during})`
    if (of.which === 'last')
      return sql`(select count(*) from (select * from recipients l where l.person_id = facts.person_id and l.accepted_at is not null order by l.accepted_at desc, l.mailing_id desc limit ${of.n}) r where ${during})`
    return sql`(select count(*) from recipients r where r.person_id = facts.person_id and ${during})`
  }
}

function isOnce(times: Times): boolean {
  return times.is === 'at-least' && times.n === 1
}

function isNever(times: Times): boolean {
  return times.n === 0 && times.is !== 'at-least'
}

function timesIs(count: RawBuilder<unknown>, { is, n }: Times): Truth {
  if (is === 'at-least') return sql<SqlBool>`${count} >= ${n}`
  return is === 'at-most' ? sql<SqlBool>`${count} <= ${n}` : sql<SqlBool>`${count} = ${n}`
}

export function ordersToSql(of: Leaf<'orders'>, { now }: Asked): Truth {
  const since = sinceOf(of.withinDays, now)
  const plain = of.product === null && of.category === null
  if (plain && since === null)
    return numberIs(
      of.what === 'count' ? sql`facts.orders` : sql`+facts.spent`,
      of.test,
      'never null',
    )
  const orders = plain
    ? sql`select o.id, o.money from orders o where o.person_id = facts.person_id`
    : sql`select o.id, sum(i.money) as money from orders o join order_items i on i.order_id = o.id join products d on d.id = i.product_id where o.person_id = facts.person_id`
  const parts: RawBuilder<unknown>[] = [orders]
  if (since !== null) parts.push(sql` and o.at >= ${since}`)
  if (of.product !== null) parts.push(sql` and fold(d.name) = ${fold(of.product)}`)
  if (of.category !== null) parts.push(sql` and fold(d.category) = ${fold(of.category)}`)
  if (!plain) parts.push(sql` group by o.id`)
  const what = of.what === 'count' ? sql`count(*)` : sql`coalesce(sum(money), 0)`
  const value = sql`(select ${what} from (${sql.join(parts, sql``)}))`
  // Nobody can have ordered lately whose last order is older; it spares counting for most people.
  const none = numberIs(sql`0`, of.test)
  const ever =
    since === null ? sql`facts.orders > 0` : sql`coalesce(facts.last_order_at >= ${since}, 0)`
  return sql<SqlBool>`(case when ${ever} then ${numberIs(value, of.test)} else ${none} end)`
}

export function eventToSql({ name, times, withinDays, where }: Leaf<'event'>, asked: Asked): Truth {
  const since = sinceOf(withinDays, asked.now)
  const parts = [sql`v.person_id = facts.person_id and v.name = ${name}`]
  if (since !== null) parts.push(sql`v.at >= ${since}`)
  if (where) {
    const family = propertyFamily(where.test)
    parts.push(
      compareJson(
        sql`v.props`,
        `$."${where.property}"`,
        family,
        where.test,
        asked,
        (value) => value,
      ),
    )
  }
  return timesIs(sql`(select count(*) from events v where ${sql.join(parts, sql` and `)})`, times)
}
