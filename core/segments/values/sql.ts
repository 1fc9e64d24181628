import { sql, type RawBuilder, type SqlBool } from 'kysely'
import type { Comparison, Family, NumberComparison } from './comparison'
import { fold } from './fold'
import { anniversariesWithin, daysOf, type Asked, type MomentRange } from './moments'

export type Truth = RawBuilder<SqlBool>

/** A column of `people`, of the person a row of `facts` is about. */
export function ofPerson(column: RawBuilder<unknown>): RawBuilder<unknown> {
  return sql`(select ${column} from people p where p.id = facts.person_id)`
}

export function joined(parts: Truth[], by: RawBuilder<unknown>, empty: Truth): Truth {
  return parts.length ? sql<SqlBool>`(${sql.join(parts, by)})` : empty
}

/** A value that may be null against a range: null is in none. */
export function inMoments(
  value: RawBuilder<unknown>,
  { from, to }: MomentRange,
  never?: 'never null',
): Truth {
  const parts = never ? [] : [sql<SqlBool>`${value} is not null`]
  if (from !== undefined) parts.push(sql<SqlBool>`${value} >= ${from}`)
  if (to !== undefined) parts.push(sql<SqlBool>`${value} < ${to}`)
  return joined(parts, sql` and `, sql<SqlBool>`1`)
}

/**
 * A comparison with a value inside JSON. What is not of the family counts as missing.
 * `reach` makes an expression on the row that has the JSON one on `facts`.
 */
export function compareJson(
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
        reach(
          sql`case when ${mayHold(json, textsOf(test))} and ${type} = 'text' then nullif(${value}, '') end`,
        ),
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
        sql`${mayHold(json, textsOf(test))} and ${type} = 'array' and exists (select 1 from json_each(${json}, ${path}) c where c.type = 'text' and ${wanted})`,
      )}`
      const not = test.is === 'empty' || test.is === 'includes-not'
      return not ? sql<SqlBool>`not coalesce(${has}, 0)` : sql<SqlBool>`coalesce(${has}, 0)`
    }
  }
}

/** What a comparison looks for in a text; null where it asks for none, or for none in particular. */
function textsOf(test: Comparison): readonly string[] | null {
  return 'text' in test ? [test.text] : 'texts' in test ? test.texts : null
}

/** Longer texts, and more of them, are not looked for beforehand. */
const [LONGEST, MOST] = [200, 5]

/**
 * Whether JSON may have one of the texts in it, found without reading it as JSON, which takes most of the time of a
 * comparison. Only plain letters are as they stand in JSON when they are folded; whatever else is in it, it may.
 */
function mayHold(json: RawBuilder<unknown>, texts: readonly string[] | null): Truth {
  if (!texts || texts.length > MOST || texts.some((text) => text.length > LONGEST))
    return sql<SqlBool>`true`
  const somewhere = texts.map((text) => {
    const pattern = `%${fold(text).replace(/[\\%_]/g, '\\$&')}%`
    return sql<SqlBool>`${json} like ${pattern} escape '\\'`
  })
  const odd = sql<SqlBool>`length(${json}) <> octet_length(${json}) or instr(${json}, '\\') > 0`
  return sql<SqlBool>`(${sql.join([...somewhere, odd], sql` or `)})`
}

/** A comparison with a value that is null where it is missing. */
export function compare(
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
      const days = anniversariesWithin(test.days, asked)
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

export function numberIs(
  value: RawBuilder<unknown>,
  test: NumberComparison,
  never?: 'never null',
): Truth {
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
    case 'at-least':
      return known(sql<SqlBool>`${value} >= ${wanted}`, 0)
    case 'at-most':
      return known(sql<SqlBool>`${value} <= ${wanted}`, 0)
  }
}
