import { mailingsOfMap, type Happening, type SequenceMap } from '../../core/sequences'
import { ruleToPredicate, type Predicate } from '../../core/segments'
import { one, q, type Database } from '../query'
import { askedAt, factsOf, readyNow } from '../segments'

/** Somebody inside a sequence, of whom something is asked. */
export interface Insider {
  person_id: number
  round: number
  entered_at: number
}

/** Says what holds for people inside, at one moment; a rule that is asked of many is made ready once. */
export function happeningsAt(db: Database, now: number) {
  const ready = new Map<string, Predicate>()
  const fits = (rule: Extract<Happening, { is: 'fits' }>['rule'], person: number) => {
    const key = JSON.stringify(rule)
    let asks = ready.get(key)
    if (!asks) ready.set(key, (asks = ruleToPredicate(readyNow(db, rule), askedAt(db, now))))
    return asks(factsOf(db, person)!)
  }
  return (
    map: SequenceMap,
    { person_id, round, entered_at }: Insider,
    what: Happening,
  ): boolean => {
    switch (what.is) {
      case 'ordered':
        return isThere(
          db,
          q
            .selectFrom('orders')
            .select('id')
            .where('person_id', '=', person_id)
            .where('at', '>=', entered_at),
        )
      case 'did':
        return isThere(
          db,
          q
            .selectFrom('events')
            .select('id')
            .where('person_id', '=', person_id)
            .where('name', '=', what.event)
            .where('at', '>=', entered_at),
        )
      case 'opened':
      case 'clicked': {
        const step = what.mail === null ? undefined : map.steps[what.mail]
        const mailings =
          what.mail === null ? mailingsOfMap(map) : step?.kind === 'mail' ? [step.mailingId] : []
        return (
          mailings.length > 0 &&
          isThere(
            db,
            q
              .selectFrom('recipients')
              .select('mailing_id')
              .where('person_id', '=', person_id)
              .where('round', '=', round)
              .where('mailing_id', 'in', mailings)
              .where(what.is === 'opened' ? 'opened_at' : 'clicked_at', 'is not', null),
          )
        )
      }
      case 'fits':
        return fits(what.rule, person_id)
    }
  }
}

const isThere = (db: Database, query: { limit(n: number): Parameters<typeof one>[1] }) =>
  one(db, query.limit(1)) !== undefined
