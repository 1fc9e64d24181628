import { sql, type Expression, type RawBuilder, type SqlBool } from 'kysely'
import type { FieldValue } from '../../core/people'
import { pulseBar, type PulseBar } from '../../core/counting'
import { idsInFieldOrder } from './field-order'
import { idsAfter, type PeopleOrder } from './order'
import { lately } from './lately'
import { searchedFor } from './search'
import { all, one, prepared, preparedOnce, q, raw, type Database } from '../query'

/** Which people: everyone, or those on a list, with a tag, among others, suppressed; and part of a name or address. */
export interface PeopleChoice {
  listId?: number | undefined
  tagId?: number | undefined
  /** A query for the ids of those among whom they are. */
  among?: RawBuilder<unknown> | undefined
  suppressed?: boolean | undefined
  search?: string | undefined
}

/** A person as a row of a table. */
export interface PersonRow {
  id: number
  address: string
  first_name: string | null
  last_name: string | null
  fields: string
  joined_at: number
  orders: number
  spent: number
  last_opened_at: number | null
  keenness: number | null
}

/**
 * One page of people in some order: those after so many others, or after somebody. Only the ids are sorted; the rest is
 * read for those shown.
 */
export function peoplePage(
  db: Database,
  choice: PeopleChoice,
  limit: number,
  from: number | { after: number; offset: number },
  order: PeopleOrder = { by: 'joined', descending: true },
): PersonRow[] {
  const next =
    typeof from === 'object'
      ? idsAfter(
          db,
          order,
          (id) => sql`(${chosenPeople(db, choice, id, { early: true })})`,
          from.after,
          limit,
        )
      : null
  const offset = typeof from === 'object' ? from.offset : from
  const ids = all(db, raw(next ?? pageOfIds(db, choice, order, limit, offset)))
  const read = prepared<{ ids: string }, PersonRow>(db, (value) =>
    q
      .selectFrom('people')
      .innerJoin('facts', 'facts.person_id', 'people.id')
      .select([
        'people.id',
        'address',
        'first_name',
        'last_name',
        'fields',
        'people.joined_at',
        'orders',
        'spent',
        'last_opened_at',
        'keenness',
      ])
      .where(sql<SqlBool>`people.id in (select value from json_each(${value('ids')}))`),
  )
  const rows = read.all({ ids: JSON.stringify(ids.map(({ id }) => id)) })
  const byId = new Map(rows.map((row) => [row.id, row]))
  return ids.map(({ id }) => byId.get(id)!)
}

function pageOfIds(
  db: Database,
  choice: PeopleChoice,
  { by, descending }: PeopleOrder,
  limit: number,
  offset: number,
) {
  const way = descending ? sql`desc` : sql`asc`
  const rest = sql`limit ${limit} offset ${offset}`
  const chosen = (id: RawBuilder<unknown>) => chosenPeople(db, choice, id, { early: true })
  const ofPeople = sql<{
    id: number
  }>`select people.id from people where ${chosen(sql`people.id`)}`
  if (typeof by === 'object') {
    const where = sql`(${chosen(sql`people.id`)})`
    return idsInFieldOrder(by.field, where, descending, limit, offset)
  }
  switch (by) {
    case 'joined':
      return sql<{ id: number }>`${ofPeople} order by joined_at ${way}, people.id ${way} ${rest}`
    case 'name':
      return sql<{
        id: number
      }>`${ofPeople} order by last_name collate nocase ${way}, first_name collate nocase ${way}, people.id ${way} ${rest}`
    case 'address':
      return sql<{ id: number }>`${ofPeople} order by normal ${way} ${rest}`
    case 'spent':
    case 'opened':
    case 'engagement': {
      const column = sql.ref(
        { spent: 'spent', opened: 'last_opened_at', engagement: 'keenness' }[by],
      )
      return sql<{
        id: number
      }>`select person_id as id from facts where ${chosen(sql`facts.person_id`)} order by ${column} ${way}, person_id ${way} ${rest}`
    }
  }
}

/** The ids of all people of a choice. */
export function idsOfPeople(db: Database, choice: PeopleChoice): number[] {
  const where = chosenPeople(db, choice, sql`facts.person_id`)
  const ids = sql<{ id: number }>`select person_id as id from facts where ${where} order by 1`
  return all(db, raw(ids)).map(({ id }) => id)
}

export function countPeople(db: Database, choice: PeopleChoice = {}): number {
  const where = chosenPeople(db, choice, sql`facts.person_id`)
  return one(db, raw(sql<{ n: number }>`select count(*) as n from facts where ${where}`))!.n
}

/** So many are enough to meet a page of them soon by asking of one person after the other. */
const LARGE = 10_000

/** Whether a query has many rows; it looks no further than to where that is known. */
function isLarge(db: Database, query: RawBuilder<unknown>): boolean {
  const found = raw(sql`select 1 as found from (${query}) limit 1 offset ${LARGE}`)
  return lately(db, JSON.stringify(found.compile()), () => one(db, found) !== undefined)
}

/**
 * The condition on a person's id. With `early` it is asked of one person after the other until a page is full, which is done
 * soonest where many have it: see {@link searchedFor}.
 */
export function chosenPeople(
  db: Database,
  { listId, tagId, among, suppressed, search }: PeopleChoice,
  id: RawBuilder<unknown>,
  { early = false } = {},
): Expression<SqlBool> {
  const parts: RawBuilder<SqlBool>[] = []
  const within = (theirs: RawBuilder<unknown>, from: RawBuilder<unknown>) =>
    parts.push(early && isLarge(db, from) ? sql`exists (${theirs})` : sql`${id} in (${from})`)
  if (listId !== undefined) {
    const on = sql`select person_id from subscriptions where list_id = ${listId} and state = 'subscribed'`
    within(sql`${on} and person_id = ${id}`, on)
  }
  if (tagId !== undefined) {
    const tagged = sql`select person_id from person_tags where tag_id = ${tagId}`
    within(sql`${tagged} and person_id = ${id}`, tagged)
  }
  if (among) within(sql`select 1 from (${among}) as those where those.person_id = ${id}`, among)
  if (suppressed) {
    const aside = sql`select person_id from set_aside`
    within(sql`${aside} where person_id = ${id}`, aside)
  }
  if (search) parts.push(searchedFor(db, search, id, { early }))
  return parts.length ? sql<SqlBool>`${sql.join(parts, sql` and `)}` : sql<SqlBool>`true`
}

/** How many people have an address at each domain. */
export function domainCounts(db: Database): Map<string, number> {
  const rows = all(
    db,
    q
      .selectFrom('people')
      .select(['domain', (eb) => eb.fn.countAll<number>().as('n')])
      .groupBy('domain'),
  )
  return new Map(rows.map(({ domain, n }) => [domain, n]))
}

/** The pulses of some people, by their id: the last twelve mailings each was sent, sequences' among them, by time. */
export function pulsesOf(db: Database, personIds: readonly number[]): Map<number, PulseBar[]> {
  const pulses = new Map<number, PulseBar[]>()
  for (const id of personIds) {
    const rows = all(
      db,
      q
        .selectFrom('recipients')
        .select(['state', 'opened_at', 'clicked_at'])
        .where('person_id', '=', id)
        .orderBy(sql`coalesce(accepted_at, at)`, 'desc')
        .orderBy('mailing_id', 'desc')
        .limit(12),
    )
    pulses.set(id, rows.reverse().map(pulseBar))
  }
  return pulses
}

/** Who has an address, by its normal form. */
export function personByAddress(db: Database, normal: string): number | undefined {
  return byAddress(db).one({ normal })?.id
}
const byAddress = preparedOnce<{ normal: string }, { id: number }>((value) =>
  q.selectFrom('people').select('id').where('normal', '=', value('normal')),
)

/** All that a person's page shows. */
export function personDetails(db: Database, id: number) {
  const person = one(db, q.selectFrom('people').selectAll().where('id', '=', id))
  if (!person) return null
  return {
    person,
    subscriptions: all(
      db,
      q
        .selectFrom('subscriptions')
        .innerJoin('lists', 'lists.id', 'subscriptions.list_id')
        .select(['lists.id as list_id', 'lists.name', 'subscriptions.state', 'subscriptions.since'])
        .where('person_id', '=', id)
        .orderBy('lists.id'),
    ),
    tags: all(
      db,
      q
        .selectFrom('person_tags')
        .innerJoin('tags', 'tags.id', 'person_tags.tag_id')
        .select('tags.name')
        .where('person_id', '=', id)
        .orderBy('tags.name'),
    ).map(({ name }) => name),
    suppressed:
      one(
        db,
        q.selectFrom('set_aside').select(['at', 'reason', 'detail']).where('person_id', '=', id),
      ) ?? null,
    evidence: all(
      db,
      q
        .selectFrom('evidence')
        .innerJoin('lists', 'lists.id', 'evidence.list_id')
        .leftJoin('wordings', 'wordings.id', 'evidence.wording_id')
        .leftJoin('sign_up_sendings as sent', 'sent.id', 'evidence.sending_id')
        .select([
          'evidence.at',
          'evidence.state',
          'evidence.way',
          'evidence.way_ref',
          'sent.page',
          'lists.name as list',
          'wordings.text as wording',
        ])
        .where('evidence.person_id', '=', id)
        .orderBy('evidence.id', 'desc')
        .limit(100),
    ),
    mailings: all(
      db,
      q
        .selectFrom('recipients')
        .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
        .select([
          'mailings.id',
          'mailings.name',
          'recipients.round',
          'recipients.state',
          'recipients.at',
          'recipients.opened_at',
          'recipients.clicked_at',
          'recipients.left_at',
          'recipients.answer',
        ])
        .where('person_id', '=', id)
        .orderBy('recipients.mailing_id', 'desc')
        .orderBy('recipients.round', 'desc')
        .limit(40),
    ),
  }
}

/** A person's values by field key, first and last name among them. */
export function valuesOf(person: {
  first_name: string | null
  last_name: string | null
  fields: string
}) {
  const values = JSON.parse(person.fields) as Record<string, FieldValue>
  if (person.first_name !== null) values.first_name = person.first_name
  if (person.last_name !== null) values.last_name = person.last_name
  return values
}

/** Somebody as a letter needs them; undefined where there is no such person. */
export function readerById(db: Database, id: number | undefined) {
  if (id === undefined) return undefined
  return one(
    db,
    q
      .selectFrom('people')
      .select(['id', 'address', 'first_name', 'last_name', 'fields'])
      .where('id', '=', id),
  )
}

/** The id of anybody on file. */
export function anybody(db: Database): number | undefined {
  return one(db, q.selectFrom('people').select('id').limit(1))?.id
}
