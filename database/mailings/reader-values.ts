import { sql, type RawBuilder, type SqlBool } from 'kysely'
import {
  fillInsOf,
  inPath,
  readerValue,
  type FillInContext,
  type Letter,
  type ReaderValue,
} from '../../core/letters'
import { dayOf } from '../../core/time'
import { readAccount } from '../account'
import { eligible, type Audience } from '../segments'
import { all, one, q, raw, type Database } from '../query'
import { beganBy, eventNames, roundKey, type Round } from '../people'

/**
 * Reads, for some people, what the letter's fill-ins name of what they did, under their `roundKey`; null where they name
 * nothing of it. People are read together, with one question for each value. In a sequence's mail an event is the one by which
 * their round began, where it is of that name, and not the latest: it is that basket which the mail is about.
 */
export function readerValuesFor(
  db: Database,
  letter: Letter,
  listId: number,
  sequenceId: number | null = null,
) {
  const wanted = wantedBy(db, letter)
  if (wanted.length === 0) return null
  const zone = readAccount(db)?.zone ?? 'UTC'
  return (rounds: readonly Round[]): Map<string, FillInContext> => {
    const personIds = [...new Set(rounds.map(({ person_id }) => person_id))]
    const found = new Map(personIds.map((id) => [id, {} as FillInContext]))
    for (const value of wanted)
      for (const { person_id, shown } of all(db, raw(asked(value, personIds, listId)))) {
        const context = found.get(person_id)!
        if (value.of === 'sign_up') {
          const text = value.key === 'day' ? dayOf(Number(shown), zone) : shown
          context.sign_up = { ...context.sign_up, [value.key]: text }
        } else say(context, value, shown)
      }
    const began = beganBy(db, sequenceId, rounds)
    return new Map(
      rounds.map((round) => {
        const context = { ...found.get(round.person_id)! }
        const event = began.get(roundKey(round))
        for (const value of wanted)
          if (value.of === 'event' && value.name === event?.name)
            say(context, value, event.props[value.property])
        return [roundKey(round), context]
      }),
    )
  }
}

function say(context: FillInContext, { path, key }: Named & { of: 'event' }, shown: unknown) {
  context.event = {
    ...context.event,
    [path]: { ...(context.event?.[path] as object), [key]: shown },
  }
}

/** How many of the audience have no such value; null where there is no event of that name. */
export function countWithout(
  db: Database,
  audience: Audience,
  path: string,
  now: number,
): number | null {
  const named = namedBy(db, path)
  if (!named) return null
  if (named.of === 'sign_up' && named.key === 'day') return 0
  const known =
    named.of === 'sign_up'
      ? sql<SqlBool>`exists (select 1 from evidence where evidence.person_id = people.id
          and evidence.list_id = ${audience.listId} and evidence.state = 'subscribed')`
      : sql<SqlBool>`exists (select 1 from events where events.person_id = people.id
          and events.name = ${named.name} and json_extract(events.props, ${`$."${named.property}"`}) is not null)`
  return one(
    db,
    q
      .selectFrom('people')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where(() => eligible(db, audience, now))
      .where(() => sql<SqlBool>`not ${known}`),
  )!.n
}

/** Everything of the kind that a fill-in can name, in words; for events what the latest ones say. */
export function readerPaths(db: Database): { path: string; name: string }[] {
  const events = eventNames(db).flatMap((event) =>
    propertiesOf(db, event).map((property) => ({
      path: `event.${inPath(event)}.${inPath(property)}`,
      name: `${event}: ${property}`,
    })),
  )
  return [
    { path: 'sign_up.day', name: 'Day they joined the list' },
    { path: 'sign_up.way', name: 'How they joined' },
    ...events.slice(0, 60),
  ]
}

type Named =
  | Extract<ReaderValue, { of: 'sign_up' }>
  | { of: 'event'; name: string; property: string; path: string; key: string }

function wantedBy(db: Database, letter: Letter): Named[] {
  const paths = new Set(fillInsOf(letter).map(({ fillIn }) => fillIn.path))
  return [...paths].flatMap((path) => namedBy(db, path) ?? [])
}

/** With the names as they are on file. */
function namedBy(db: Database, path: string): Named | null {
  const value = readerValue(path)
  if (value?.of !== 'event') return value
  const name = eventNames(db).find((one) => inPath(one) === value.name)
  const property = name && propertiesOf(db, name).find((one) => inPath(one) === value.key)
  return property ? { of: 'event', name, property, path: value.name, key: value.key } : null
}

/** What the latest events of a name say. */
function propertiesOf(db: Database, event: string): string[] {
  const latest = sql<{ key: string }>`
    select distinct said.key as key
    from (select props from events where name = ${event} order by at desc limit 50) as latest, json_each(latest.props) as said
    where said.type in ('text', 'integer', 'real') and instr(said.key, '"') = 0 order by 1`
  return all(db, raw(latest)).map(({ key }) => key)
}

function asked(
  value: Named,
  personIds: readonly number[],
  listId: number,
): RawBuilder<{ person_id: number; shown: string }> {
  const those = sql`person_id in (select value from json_each(${JSON.stringify(personIds)}))`
  if (value.of === 'sign_up')
    return value.key === 'day'
      ? sql`select person_id, since as shown from subscriptions where list_id = ${listId} and state = 'subscribed' and ${those}`
      : sql`select person_id, coalesce(way_ref, way) as shown from evidence
            where id in (select max(id) from evidence where list_id = ${listId} and state = 'subscribed' and ${those} group by person_id)`
  const said = sql`json_extract(props, ${`$."${value.property}"`})`
  // With one max() SQLite gives the other columns of the row that has it.
  return sql`select person_id, ${said} as shown, max(at) from events
             where name = ${value.name} and ${said} is not null and ${those} group by person_id`
}
