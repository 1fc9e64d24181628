import { sql, type RawBuilder } from 'kysely'
import { bestHour } from '../../core/dispatch'
import { DAY, hourOf } from '../../core/time'
import { all, raw, type Database } from '../query'

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
