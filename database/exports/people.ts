import { sql, type Expression, type SqlBool } from 'kysely'
import type { ExportedPerson } from '../../core/people'
import type { Rule } from '../../core/segments'
import { tierOf } from '../../core/standing'
import { chosenPeople, valuesOf } from '../people'
import { all, q, type Database } from '../query'
import { membersOf, type TableChoice } from '../segments'

/** Whom to take out: the members of a rule, some by their ids, those a table shows, or who did something. */
export type ExportChoice =
  | { rule: Rule }
  | { ids: readonly number[] }
  | { shown: TableChoice }
  | { active: { mailings: readonly number[]; since: number; until: number } }

const BATCH = 2_000

/**
 * People to take out, in batches by their id, so that a million neither fills the memory nor holds up
 * anybody else.
 */
export function* exportPeople(
  db: Database,
  choice: ExportChoice,
  now: number,
): Generator<ExportedPerson[]> {
  const chosen = chosenBy(db, choice, now)
  for (let after = 0; ;) {
    const rows = all(
      db,
      q
        .selectFrom('facts')
        .innerJoin('people', 'people.id', 'facts.person_id')
        .select(['people.id', 'address', 'first_name', 'last_name', 'fields', 'people.joined_at'])
        .select(['orders', 'spent', 'last_opened_at', 'keenness'])
        .select([
          sql<string>`(select json_group_array(t.name) from person_tags pt join tags t on t.id = pt.tag_id where pt.person_id = people.id)`.as(
            'tags',
          ),
          sql<string>`(select json_group_array(l.name) from subscriptions s join lists l on l.id = s.list_id where s.person_id = people.id and s.state = 'subscribed')`.as(
            'lists',
          ),
        ])
        .where('facts.person_id', '>', after)
        .where(() => chosen)
        .orderBy('facts.person_id')
        .limit(BATCH),
    )
    if (rows.length === 0) return
    after = rows.at(-1)!.id
    yield rows.map((row) => ({
      address: row.address,
      values: valuesOf(row),
      tags: JSON.parse(row.tags) as string[],
      lists: JSON.parse(row.lists) as string[],
      joinedAt: row.joined_at,
      orders: row.orders,
      spent: row.spent,
      openedAt: row.last_opened_at,
      tier: tierOf(row.keenness, now),
    }))
  }
}

function chosenBy(db: Database, choice: ExportChoice, now: number): Expression<SqlBool> {
  if ('rule' in choice) return membersOf(db, choice.rule, now)
  if ('shown' in choice) {
    const { segmentId, ...shown } = choice.shown
    const chosen = chosenPeople(db, shown, sql`facts.person_id`)
    if (segmentId === undefined) return chosen
    // Asked of one after the other: a batch reads no more of a segment than it needs.
    const members = membersOf(db, { kind: 'segment', segmentId }, now)
    return sql<SqlBool>`(${chosen} and ${members})`
  }
  if ('active' in choice) {
    const { mailings, since, until } = choice.active
    const then = (at: string) => sql`${sql.ref(at)} >= ${since} and ${sql.ref(at)} < ${until}`
    return sql<SqlBool>`exists (select 1 from recipients as r where r.person_id = facts.person_id
      and r.mailing_id in (select value from json_each(${JSON.stringify(mailings)}))
      and (${then('r.opened_at')} or ${then('r.clicked_at')} or ${then('r.left_at')}))`
  }
  // One list as JSON: SQLite takes no more than so many parameters.
  return sql<SqlBool>`facts.person_id in (select value from json_each(${JSON.stringify(choice.ids)}))`
}
