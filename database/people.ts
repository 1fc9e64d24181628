import { sql, type Expression, type SqlBool } from 'kysely'
import type { FieldValue } from '../core/people'
import { all, one, q, type Database } from './query'

/** Which people: everyone, the subscribers of a list, or those set aside; and part of a name or address. */
export interface PeopleChoice {
  listId?: number | undefined
  setAside?: boolean | undefined
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
}

/** One page of people, the newest first, after the one with the id `after`. */
export function peoplePage(
  db: Database,
  choice: PeopleChoice,
  limit: number,
  offset: number,
): PersonRow[] {
  return all(
    db,
    q
      .selectFrom('people')
      .select(['id', 'address', 'first_name', 'last_name', 'fields', 'joined_at'])
      .where(() => chosen(choice))
      .orderBy('joined_at', 'desc')
      .orderBy('id', 'desc')
      .limit(limit)
      .offset(offset),
  )
}

export function countPeople(db: Database, choice: PeopleChoice = {}): number {
  return one(
    db,
    q
      .selectFrom('people')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where(() => chosen(choice)),
  )!.n
}

function chosen({ listId, setAside, search }: PeopleChoice): Expression<SqlBool> {
  const parts: Expression<SqlBool>[] = []
  if (listId !== undefined)
    parts.push(
      sql<SqlBool>`people.id in (select person_id from subscriptions where list_id = ${listId} and state = 'subscribed')`,
    )
  if (setAside) parts.push(sql<SqlBool>`people.id in (select person_id from set_aside)`)
  if (search) {
    const like = `%${search.replace(/[\\%_]/g, '\\$&')}%`
    parts.push(
      sql<SqlBool>`(people.normal like ${like} escape '\\' or people.first_name || ' ' || people.last_name like ${like} escape '\\' or people.last_name like ${like} escape '\\' or people.first_name like ${like} escape '\\')`,
    )
  }
  return parts.length ? parts.reduce((a, b) => sql<SqlBool>`${a} and ${b}`) : sql<SqlBool>`true`
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

/** What a person's last twelve mailings came to; see the pulse of product.md. Newest last. */
export type PulseBar = 'clicked' | 'opened' | 'delivered' | 'not-sent' | 'bounced'

/** The pulses of some people, by their id. */
export function pulsesOf(db: Database, personIds: readonly number[]): Map<number, PulseBar[]> {
  const pulses = new Map<number, PulseBar[]>()
  for (const id of personIds) {
    const rows = all(
      db,
      q
        .selectFrom('recipients')
        .select(['state', 'opened_at', 'clicked_at'])
        .where('person_id', '=', id)
        .orderBy('mailing_id', 'desc')
        .limit(12),
    )
    pulses.set(id, rows.reverse().map(barOf))
  }
  return pulses
}

function barOf(row: {
  state: string
  opened_at: number | null
  clicked_at: number | null
}): PulseBar {
  if (row.clicked_at !== null) return 'clicked'
  if (row.opened_at !== null) return 'opened'
  if (row.state === 'accepted' || row.state === 'complained') return 'delivered'
  return row.state === 'bounced' || row.state === 'failed' ? 'bounced' : 'not-sent'
}

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
    setAside:
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
        .select([
          'evidence.at',
          'evidence.state',
          'evidence.way',
          'evidence.way_ref',
          'lists.name as list',
          'wordings.text as wording',
        ])
        .where('person_id', '=', id)
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
          'recipients.state',
          'recipients.at',
          'recipients.opened_at',
          'recipients.clicked_at',
          'recipients.left_at',
          'recipients.answer',
        ])
        .where('person_id', '=', id)
        .orderBy('recipients.mailing_id', 'desc')
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
