import { isWaitingFor, type ArrivalFacts, type Place, type SequenceMap } from '../../core/sequences'
import { bestHourOfEach } from '../mailings'
import { preparedOnce, q, type Database } from '../query'

/** Where somebody stands, as it is kept. */
export const placeRow = (map: SequenceMap, { step, due, arrived, visit }: Place) => ({
  ...{ step, due, visit, arrived_at: arrived },
  wakes: isWaitingFor(map.steps[step]) ? (1 as const) : (0 as const),
})

const fieldsOf = preparedOnce<{ person: number }, { fields: string }>((value) =>
  q.selectFrom('people').select('fields').where('id', '=', value('person')),
)

/** What a field of somebody holds, by its key. Asked of one after the other, each is read once. */
export function fieldsOfEach(db: Database) {
  let whose: number | null = null
  let fields: Record<string, unknown> = {}
  return (person: number, field: string): unknown => {
    if (whose !== person) {
      fields = JSON.parse(fieldsOf(db).one({ person })?.fields ?? '{}') as Record<string, unknown>
      whose = person
    }
    return Object.hasOwn(fields, field) ? fields[field] : undefined
  }
}

/** What is asked of somebody who comes to a step; their fields are read when they are asked for. */
export function arrivalFacts(
  db: Database,
  person: number,
  zone: string,
  now: number,
): ArrivalFacts {
  const fields = fieldsOfEach(db)
  const bestHour = bestHourOfEach(db, now)
  return {
    zone,
    fieldOf: (field) => fields(person, field),
    bestHour: (of) => bestHour(person, of),
  }
}
