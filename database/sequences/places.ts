import { isWaitingFor, type ArrivalFacts, type Place, type SequenceMap } from '../../core/sequences'
import { isDay, type Day } from '../../core/time'
import { preparedOnce, q, type Database } from '../query'

/** Where somebody stands, as it is kept. */
export const placeRow = (map: SequenceMap, { step, due, arrived, visit }: Place) => ({
  ...{ step, due, visit, arrived_at: arrived },
  wakes: isWaitingFor(map.steps[step]) ? (1 as const) : (0 as const),
})

const fieldsOf = preparedOnce<{ person: number }, { fields: string }>((value) =>
  q.selectFrom('people').select('fields').where('id', '=', value('person')),
)

/** A date of somebody by the key of its field; null where they have none. Asked of one after the other, each is read once. */
export function datesOf(db: Database) {
  let whose: number | null = null
  let fields: Record<string, unknown> = {}
  return (person: number, field: string): Day | null => {
    if (whose !== person) {
      fields = JSON.parse(fieldsOf(db).one({ person })?.fields ?? '{}') as Record<string, unknown>
      whose = person
    }
    const value = fields[field]
    return isDay(value) ? value : null
  }
}

/** What is asked of somebody who comes to a step; their dates are read when they are asked for. */
export function arrivalFacts(db: Database, person: number, zone: string): ArrivalFacts {
  const dates = datesOf(db)
  return { zone, dateOf: (field) => dates(person, field) }
}
