import { sql, type RawBuilder } from 'kysely'
import { bestHour, readingHour, type Opens } from '../../core/dispatch'
import { DAY, HOUR, hourOf } from '../../core/time'
import { all, one, preparedOnce, q, raw, type Database } from '../query'

/** How far back opens say when somebody reads. */
const READING_DAYS = 180

/**
 * The hour of the day, in a zone, at which each of some people reads most; the hour of all of them for who has not read.
 * @param of Whose: `people where …`.
 */
export function* bestHours(
  db: Database,
  of: RawBuilder<unknown>,
  zone: string,
  now: number,
): Generator<[person: number, hour: number]> {
  const opens = all(
    db,
    raw(sql<{ person_id: number; opened_at: number | null }>`
      select mine.id as person_id, past.opened_at from (select people.id from ${of}) as mine
      left join recipients as past on past.person_id = mine.id and past.opened_at > ${now - READING_DAYS * DAY}
      order by mine.id`),
  )
  const hours = hoursIn(zone)
  const everybody = new Array<number>(24).fill(0)
  for (const { opened_at } of opens) if (opened_at !== null) everybody[hours(opened_at)]!++
  for (let i = 0; i < opens.length;) {
    const person = opens[i]!.person_id
    const own = new Array<number>(24).fill(0)
    for (; opens[i]?.person_id === person; i++)
      if (opens[i]!.opened_at !== null) own[hours(opens[i]!.opened_at!)]!++
    yield [person, bestHour(own, everybody)]
  }
}

/** The hour of the day, reckoned once for each hour there is. */
function hoursIn(zone: string) {
  const known = new Map<number, number>()
  return (at: number) => {
    const key = Math.floor(at / 900_000)
    let hour = known.get(key)
    if (hour === undefined) known.set(key, (hour = hourOf(at, zone)))
    return hour
  }
}

/** So many people, spread over all there are, say when everybody reads. */
const SPREAD = 2_000

/**
 * The hour of the day, in a zone, at which somebody reads most, asked one after the other; for who has not read, the hour
 * of everybody, as it is known from some of them.
 */
export function bestHourOfEach(db: Database, now: number) {
  return (person: number, zone: string): number =>
    readingHour(opensOf(db, person, now), everybodysOpens(db, now), zone)
}

/** When somebody opened mail lately, UTC ms. */
export const opensOf = (db: Database, person: number, now: number): number[] =>
  opensOfOne(db)
    .all({ person, since: now - READING_DAYS * DAY })
    .map(({ opened_at }) => opened_at!)

const opensOfOne = preparedOnce<{ person: number; since: number }, { opened_at: number | null }>(
  (value) =>
    q
      .selectFrom('recipients')
      .select('opened_at')
      .where('person_id', '=', value('person'))
      .where('opened_at', '>', value('since')),
)

/** When people opened mail lately, UTC ms: of {@link SPREAD} of them. Asked of the file at most once an hour. */
export function everybodysOpens(db: Database, now: number): readonly Opens[] {
  const kept = known.get(db)
  if (kept && kept.from <= now && now < kept.from + HOUR) return kept.opens
  const last = one(db, q.selectFrom('people').select('id').orderBy('id', 'desc'))?.id ?? 0
  const step = Math.max(1, Math.floor(last / SPREAD))
  const ids = Array.from({ length: Math.min(SPREAD, last) }, (_, n) => 1 + n * step)
  const opens = all(
    db,
    raw(sql<{ at: number; opens: number }>`select opened_at as at, 1 as opens from recipients
      where person_id in (select value from json_each(${JSON.stringify(ids)}))
        and opened_at > ${now - READING_DAYS * DAY}`),
  )
  known.set(db, { from: now, opens })
  return opens
}
const known = new WeakMap<Database, { from: number; opens: readonly Opens[] }>()
