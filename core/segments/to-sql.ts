import { sql, type Expression, type RawBuilder, type SqlBool } from 'kysely'
import { anniversariesFrom, dayOf } from '../time'
import { propertyFamily, type Comparison, type Family, type NumberComparison } from './comparison'
import { fold } from './fold'
import { daysOf, momentsOf, sinceOf, type Asked, type MomentRange } from './moments'
import type { ReadyRule } from './ready'
import type { MailAct, Times } from './rule'
import { tierSpans, type TierSpan } from './tier-spans'

// A plus before a column keeps SQLite from its index: rules keep many people, and reading `facts` from
// end to end is then much faster than going back and forth between an index and the rows.
type Truth = RawBuilder<SqlBool>
type Leaf<K extends ReadyRule['kind']> = Extract<ReadyRule, { kind: K }>

/**
 * The rule as a condition on rows of `facts`, one for each person. It is true or false, never
 * unknown: a missing value matches "is empty" and "is not", and nothing else. `null` is the rule that
 * could not be made ready: nobody.
 * @example selectFrom('facts').where(() => ruleToSql(rule, asked)).select('person_id')
 */
export function ruleToSql(rule: ReadyRule | null, asked: Asked): Expression<SqlBool> {
  return rule === null ? sql<SqlBool>`0` : toSql(rule, asked)
}

function toSql(rule: ReadyRule, asked: Asked): Truth {
  switch (rule.kind) {
    case 'all':
      return joined(
        rule.of.map((part) => toSql(part, asked)),
        sql` and `,
        sql<SqlBool>`1`,
      )
    case 'any':
      return joined(
        rule.of.map((part) => toSql(part, asked)),
        sql` or `,
        sql<SqlBool>`0`,
      )
    case 'none':
      return sql<SqlBool>`not ${joined(
        rule.of.map((part) => toSql(part, asked)),
        sql` or `,
        sql<SqlBool>`0`,
      )}`
    case 'segment':
      return toSql(rule.of, asked)
    case 'frozen':
      return sql<SqlBool>`exists (select 1 from frozen_people z where z.segment_id = ${rule.segmentId} and z.person_id = facts.person_id)`
    case 'field':
      return fieldToSql(rule, asked)
    case 'joined':
      return inMoments(sql`facts.joined_at`, momentsOf(rule.when, asked), 'never null')
    case 'tagged':
      return sql<SqlBool>`exists (select 1 from person_tags t where t.person_id = facts.person_id and t.tag_id = ${rule.tagId})`
    case 'on-list':
      return onListToSql(rule, asked)
    case 'address': {
      const column = rule.part === 'whole' ? sql`normal` : sql`domain`
      return compare(ofPerson(column), 'text', rule.test, asked)
    }
    case 'mail':
      return mailToSql(rule, asked)
    case 'orders':
      return ordersToSql(rule, asked)
    case 'ordered':
      return inMoments(
        rule.which === 'first' ? sql`facts.first_order_at` : sql`facts.last_order_at`,
        momentsOf(rule.when, asked),
      )
    case 'event':
      return eventToSql(rule, asked)
    case 'tier':
      return joined(tierSpans(rule.of, asked.now).map(inTier), sql` or `, sql<SqlBool>`0`)
  }
}

function joined(parts: Truth[], by: RawBuilder<unknown>, empty: Truth): Truth {
  return parts.length ? sql<SqlBool>`(${sql.join(parts, by)})` : empty
}

function ofPerson(column: RawBuilder<unknown>): RawBuilder<unknown> {
  return sql`(select ${column} from people p where p.id = facts.person_id)`
}

function inTier({ from, to }: TierSpan): Truth {
  const parts: Truth[] = []
  if (from !== null) parts.push(sql<SqlBool>`coalesce(+facts.keenness >= ${from}, 0)`)
  if (to !== null) parts.push(sql<SqlBool>`coalesce(+facts.keenness < ${to}, 1)`)
  return joined(parts, sql` and `, sql<SqlBool>`1`)
}

/** A value that may be null against a range: null is in none. */
function inMoments(
  value: RawBuilder<unknown>,
  { from, to }: MomentRange,
  never?: 'never null',
): Truth {
  const parts = never ? [] : [sql<SqlBool>`${value} is not null`]
  if (from !== undefined) parts.push(sql<SqlBool>`${value} >= ${from}`)
  if (to !== undefined) parts.push(sql<SqlBool>`${value} < ${to}`)
  return joined(parts, sql` and `, sql<SqlBool>`1`)
}

function fieldToSql({ key, family, test }: Leaf<'field'>, asked: Asked): Truth {
  if (key === 'first_name' || key === 'last_name')
    return compare(sql`nullif(${ofPerson(sql.ref(key))}, '')`, 'text', test, asked)
  return compareJson(sql`p.fields`, `$.${key}`, family, test, asked, (value) => ofPerson(value))
}

/**
 * A comparison with a value inside JSON. What is not of the family counts as missing.
 * `reach` makes an expression on the row that has the JSON one on `facts`.
 */
function compareJson(
  json: RawBuilder<unknown>,
  path: string,
  family: Family,
  test: Comparison,
  asked: Asked,
  reach: (value: RawBuilder<unknown>) => RawBuilder<unknown>,
): Truth {
  const value = sql`json_extract(${json}, ${path})`
  const type = sql`json_type(${json}, ${path})`
  switch (family) {
    case 'text':
      return compare(
        reach(sql`case when ${type} = 'text' then nullif(${value}, '') end`),
        family,
        test,
        asked,
      )
    case 'day':
      return compare(
        reach(
          sql`case when ${type} = 'text' and ${value} glob '[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]' then ${value} end`,
        ),
        family,
        test,
        asked,
      )
    case 'number':
      return compare(
        reach(sql`case when ${type} in ('integer', 'real') then ${value} end`),
        family,
        test,
        asked,
      )
    case 'yesno':
      return compare(
        reach(sql`case ${type} when 'true' then 1 when 'false' then 0 end`),
        family,
        test,
        asked,
      )
    case 'any':
      return compare(
        reach(
          sql`case when ${type} in ('true', 'false') then 1 when ${type} in ('integer', 'real') then 1 when ${type} = 'text' then nullif(${value}, '') end`,
        ),
        family,
        test,
        asked,
      )
    case 'choices': {
      const wanted = 'text' in test ? sql`fold(c.value) = ${fold(test.text)}` : sql`c.value <> ''`
      const has = sql<SqlBool>`${reach(
        sql`${type} = 'array' and exists (select 1 from json_each(${json}, ${path}) c where c.type = 'text' and ${wanted})`,
      )}`
      const not = test.is === 'empty' || test.is === 'includes-not'
      return not ? sql<SqlBool>`not coalesce(${has}, 0)` : sql<SqlBool>`coalesce(${has}, 0)`
    }
  }
}

/** A comparison with a value that is null where it is missing. */
function compare(
  value: RawBuilder<unknown>,
  family: Family,
  test: Comparison,
  asked: Asked,
): Truth {
  const folded = sql`fold(${value})`
  switch (test.is) {
    case 'empty':
      return sql<SqlBool>`${value} is null`
    case 'known':
      return sql<SqlBool>`${value} is not null`
    case 'equal':
      return sql<SqlBool>`coalesce(${folded} = ${fold(test.text)}, 0)`
    case 'not-equal':
      return sql<SqlBool>`coalesce(${folded} <> ${fold(test.text)}, 1)`
    case 'contains':
      return sql<SqlBool>`coalesce(instr(${folded}, ${fold(test.text)}) > 0, 0)`
    case 'starts':
      return sql<SqlBool>`coalesce(instr(${folded}, ${fold(test.text)}) = 1, 0)`
    case 'ends': {
      const end = fold(test.text)
      return end === ''
        ? sql<SqlBool>`${value} is not null`
        : sql<SqlBool>`coalesce(substr(${folded}, -length(${end})) = ${end}, 0)`
    }
    case 'one-of':
      return sql<SqlBool>`coalesce(${folded} in (${sql.join(test.texts.map((text) => sql`${fold(text)}`))}), 0)`
    case 'number':
    case 'between':
      return numberIs(value, test)
    case 'yes':
      return sql<SqlBool>`coalesce(${value} = 1, 0)`
    case 'no':
      return sql<SqlBool>`coalesce(${value} = 0, 0)`
    case 'anniversary': {
      const days = anniversariesFrom(dayOf(asked.now, asked.zone), test.days)
      return sql<SqlBool>`coalesce(substr(${value}, 6) in (${sql.join(days.map((day) => sql`${day}`))}), 0)`
    }
    case 'includes':
    case 'includes-not':
      throw new Error(`Several choices are not compared as ${family}.`)
    default: {
      const { after, upTo, before } = daysOf(test, asked)
      const parts = [sql<SqlBool>`${value} is not null`]
      if (after !== undefined) parts.push(sql<SqlBool>`${value} > ${after}`)
      if (upTo !== undefined) parts.push(sql<SqlBool>`${value} <= ${upTo}`)
      if (before !== undefined) parts.push(sql<SqlBool>`${value} < ${before}`)
      return joined(parts, sql` and `, sql<SqlBool>`1`)
    }
  }
}

function numberIs(value: RawBuilder<unknown>, test: NumberComparison, never?: 'never null'): Truth {
  const known = (truth: Truth, whenNull: 0 | 1) =>
    never ? truth : sql<SqlBool>`coalesce(${truth}, ${sql.lit(whenNull)})`
  if (test.is === 'between')
    return known(sql<SqlBool>`${value} between ${test.from} and ${test.to}`, 0)
  const wanted = test.number
  switch (test.than) {
    case 'equal':
      return known(sql<SqlBool>`${value} = ${wanted}`, 0)
    case 'not-equal':
      return known(sql<SqlBool>`${value} <> ${wanted}`, 1)
    case 'under':
      return known(sql<SqlBool>`${value} < ${wanted}`, 0)
    case 'over':
      return known(sql<SqlBool>`${value} > ${wanted}`, 0)
  }
}

function onListToSql(of: Leaf<'on-list'>, asked: Asked): Truth {
  const parts = [
    sql<SqlBool>`s.person_id = facts.person_id`,
    sql<SqlBool>`s.list_id = ${of.listId}`,
    sql<SqlBool>`s.state = ${of.state}`,
  ]
  if (of.since) parts.push(inMoments(sql`s.since`, momentsOf(of.since, asked)))
  if (of.way)
    parts.push(
      sql<SqlBool>`coalesce((select e.way from evidence e where e.person_id = s.person_id and e.list_id = s.list_id order by e.id desc limit 1) = ${of.way}, 0)`,
    )
  return sql<SqlBool>`exists (select 1 from subscriptions s where ${sql.join(parts, sql` and `)})`
}

/** When a recipient did what is asked; null where they did not. */
const momentOf: Record<MailAct, RawBuilder<unknown>> = {
  sent: sql`r.accepted_at`,
  delivered: sql`case when r.state in ('accepted', 'complained') then r.accepted_at end`,
  opened: sql`r.opened_at`,
  clicked: sql`r.clicked_at`,
  bounced: sql`case when r.state in ('bounced', 'failed') then r.at end`,
}

/** What `facts` already has: how many mailings, and the last time. */
const summed: Partial<Record<MailAct, { count: RawBuilder<unknown>; last: RawBuilder<unknown> }>> =
  {
    sent: { count: sql`facts.sent`, last: sql`facts.last_sent_at` },
    opened: { count: sql`facts.opened`, last: sql`+facts.last_opened_at` },
    clicked: { count: sql`facts.clicked`, last: sql`facts.last_clicked_at` },
  }

function mailToSql({ did, of, times, withinDays }: Leaf<'mail'>, { now }: Asked): Truth {
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

function ordersToSql(of: Leaf<'orders'>, { now }: Asked): Truth {
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

function eventToSql({ name, times, withinDays, where }: Leaf<'event'>, asked: Asked): Truth {
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
