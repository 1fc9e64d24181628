import { isWaitingFor, type ArrivalFacts, type Place, type SequenceMap } from '../../core/sequences'
import { isDay } from '../../core/time'
import { one, q, type Database } from '../query'

/** Where somebody stands, as it is kept. */
export const placeRow = (map: SequenceMap, { step, due, arrived, visit }: Place) => ({
  ...{ step, due, visit, arrived_at: arrived },
  wakes: isWaitingFor(map.steps[step]) ? (1 as const) : (0 as const),
})

/** What is asked of somebody who comes to a step; their dates are read when they are asked for. */
export function arrivalFacts(db: Database, person: number, zone: string): ArrivalFacts {
  let fields: Record<string, unknown> | undefined
  return {
    zone,
    dateOf(field) {
      if (!fields) {
        const row = one(db, q.selectFrom('people').select('fields').where('id', '=', person))
        fields = JSON.parse(row?.fields ?? '{}') as Record<string, unknown>
      }
      const value = fields[field]
      return isDay(value) ? value : null
    },
  }
}
