import { sql, type Expression, type RawBuilder } from 'kysely'
import {
  isGroup,
  kindOf,
  ruleToSql,
  type Asked,
  type Group,
  type ReadyGroup,
  type ReadyRule,
  type Rule,
} from '../../core/segments'
import { all, one, q, raw, run, type Database } from '../query'
import { askedAt, membersOf, readyNow } from './segments'

/** How many people each line of a rule keeps, by its path: the indexes from the root, joined by dots. */
export interface LineCounts {
  everyone: number
  total: number
  lines: Record<string, number>
}

/** People kept so far: a temporary table of their ids, and how many they are. */
interface Kept {
  table: string
  n: number
}

/**
 * Counts a rule line by line. Each line counts whom everything above it and it keep: under "all" the
 * lines narrow one after the other; under "any" each counts by itself among those kept above the
 * group; under "none" each counts who is left. People kept are written down, so that the next line
 * asks only them, and all lines together cost little more than the whole rule.
 * Afterwards the members are in the temporary table `members`, until the next call.
 */
export function countLines(db: Database, rule: Rule, now: number): LineCounts {
  const asked = askedAt(db, now)
  const lines: Record<string, number> = {}
  const ready = readyNow(db, rule)
  const tables: string[] = []
  const everyone = one(
    db,
    q.selectFrom('facts').select((eb) => eb.fn.countAll<number>().as('n')),
  )!.n
  db.sqlite.exec('drop table if exists temp.members')
  try {
    const kept = ready === null ? write(sql`select 0 where 0`) : walk(ready, rule, null, [])
    const members = kept ?? write(sql`select person_id from facts`)
    db.sqlite.exec(`alter table temp.${members.table} rename to members`)
    return { everyone, total: members.n, lines }
  } finally {
    for (const table of tables) db.sqlite.exec(`drop table if exists temp.${table}`)
  }

  /** Who is kept of those kept above; null above and below stands for everybody. */
  function walk(part: ReadyRule, shown: Rule, above: Kept | null, path: number[]): Kept | null {
    const kept = isGroup(shown)
      ? walkGroup(part as ReadyGroup, shown, above, path)
      : narrow(above, part)
    lines[path.join('.')] = kept?.n ?? everyone
    return kept
  }

  function walkGroup(
    { of }: ReadyGroup,
    shown: Group,
    above: Kept | null,
    path: number[],
  ): Kept | null {
    if (shown.kind === 'any' && shown.of.length > 1 && !shown.of.some(isGroup))
      return either(of, above, path)
    if (shown.kind === 'any')
      return union(of.map((part, i) => walk(part, shown.of[i]!, above, [...path, i])))
    return of.reduce((kept, part, i) => {
      const next = walk(part, shown.of[i]!, kept, [...path, i])
      if (shown.kind === 'all') return next
      const left = without(kept, next)
      lines[[...path, i].join('.')] = left.n
      return left
    }, above)
  }

  /** Conditions of which one is enough are asked in one go: which of them hold is a bit for each. */
  function either(of: ReadyRule[], above: Kept | null, path: number[]): Kept {
    const bits = sql.join(
      of.map((part, i) => sql`(${ruleToSql(part, asked)}) * ${2 ** i}`),
      sql` + `,
    )
    const from =
      above === null
        ? sql`facts`
        : sql`${kept(above)} k cross join facts on facts.person_id = k.person_id`
    // The limit keeps SQLite from asking each condition once more for the outer condition.
    const found = write(
      sql`select person_id, bits from (select facts.person_id, ${bits} as bits from ${from} limit -1) where bits > 0`,
      'bits',
    )
    const sums = of.map((_, i) => sql`sum((bits & ${2 ** i}) > 0) as ${sql.ref(`n${i}`)}`)
    const counted = one(
      db,
      raw(sql<Record<string, number | null>>`select ${sql.join(sums)} from ${kept(found)}`),
    )!
    of.forEach((_, i) => (lines[[...path, i].join('.')] = counted[`n${i}`] ?? 0))
    return found
  }

  function narrow(above: Kept | null, part: ReadyRule): Kept {
    if (above === null)
      return write(
        directly(part, asked) ?? sql`select person_id from facts where ${ruleToSql(part, asked)}`,
      )
    return write(
      sql`select facts.person_id from ${kept(above)} k cross join facts on facts.person_id = k.person_id where ${ruleToSql(part, asked)}`,
    )
  }

  function union(parts: (Kept | null)[]): Kept | null {
    if (parts.some((part) => part === null)) return null
    const found = parts as Kept[]
    if (found.length === 1) return found[0]!
    return write(
      found.length
        ? sql.join(
            found.map((part) => sql`select person_id from ${kept(part)}`),
            sql` union `,
          )
        : sql`select 0 where 0`,
    )
  }

  function without(above: Kept | null, out: Kept | null): Kept {
    if (out === null) return write(sql`select 0 where 0`)
    const from = above === null ? sql`facts` : kept(above)
    return write(
      sql`select person_id from ${from} where person_id not in (select person_id from ${kept(out)})`,
    )
  }

  function kept({ table }: Kept): RawBuilder<unknown> {
    return sql`temp.${sql.ref(table)}`
  }

  function write(select: Expression<unknown>, also?: 'bits'): Kept {
    const table = `kept_${tables.length}`
    tables.push(table)
    const columns = `person_id integer primary key${also ? `, ${also} integer` : ''}`
    db.sqlite.exec(`create temp table ${table} (${columns})`)
    return { table, n: run(db, raw(sql`insert into temp.${sql.ref(table)} ${select}`)).changes }
  }
}

/** The ids of all whom a condition keeps, where an index gives them faster than asking one by one. */
function directly(part: ReadyRule, asked: Asked): RawBuilder<unknown> | null {
  if (isGroup(part) || part.kind === 'members') return null
  return kindOf(part).ids?.(part, asked) ?? null
}

/** How many of the members that `countLines` found are in another rule, too. */
export function sharedWithMembers(db: Database, rule: Rule, now: number): number {
  const shared = sql<{
    n: number
  }>`select count(*) as n from temp.members k cross join facts on facts.person_id = k.person_id where ${membersOf(db, rule, now)}`
  return one(db, raw(shared))!.n
}

/** Some of the members that `countLines` found, the latest to join first; with sums of what they did. */
export function membersPage(db: Database, limit: number, offset: number) {
  return all(
    db,
    raw(
      sql<MemberRow>`select p.id, p.address, p.first_name, p.last_name, p.fields, f.orders, f.spent
        from temp.members k cross join facts f on f.person_id = k.person_id join people p on p.id = k.person_id
        order by k.person_id desc limit ${limit} offset ${offset}`,
    ),
  )
}

export interface MemberRow {
  id: number
  address: string
  first_name: string | null
  last_name: string | null
  fields: string
  orders: number
  spent: number
}
