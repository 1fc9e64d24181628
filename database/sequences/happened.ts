import { sql } from 'kysely'
import {
  mailingsOfMap,
  mailingsOfStep,
  type Happening,
  type SequenceMap,
} from '../../core/sequences'
import { carriedSql, ruleToPredicate, type Predicate } from '../../core/segments'
import { one, preparedOnce, q, type Database } from '../query'
import { askedAt, factsOf, readyNow } from '../segments'

/** Somebody inside a sequence, of whom something is asked. */
export interface Insider {
  sequence_id: number
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
  return (map: SequenceMap, { sequence_id, person_id, round, entered_at }: Insider) => {
    // What somebody did with the mail of the map is read once.
    let mail: { mailing_id: number; opened_at: number | null; clicked_at: number | null }[] | null =
      null
    const mailOf = () =>
      (mail ??= read(db).all({ mailings: listOf(map), person: person_id, round }))
    return (what: Happening, within = EVER): boolean => {
      const before = entered_at + within
      switch (what.is) {
        case 'ordered':
          return ordered(db).one({ person: person_id, from: entered_at, before }) !== undefined
        case 'did': {
          const { event, where } = what
          if (!where)
            return did(db).one({ person: person_id, event, from: entered_at, before }) !== undefined
          return isThere(
            db,
            q
              .selectFrom('events')
              .select('id')
              .where('person_id', '=', person_id)
              .where('name', '=', event)
              .where('at', '>=', entered_at)
              .where('at', '<', before)
              .where(carriedSql(where, sql.ref('events.props'), askedAt(db, now))),
          )
        }
        case 'opened':
        case 'clicked': {
          const step = what.mail === null ? undefined : map.steps[what.mail]
          const mailings = what.mail === null ? mailingsOf(map) : step ? mailingsOfStep(step) : []
          const link = what.is === 'clicked' ? what.link : undefined
          if (link !== undefined)
            return mailings.some((id) => clickedLink(db, id, { person_id, round }, link, before))
          return mailOf().some(
            ({ mailing_id, opened_at, clicked_at }) =>
              mailings.includes(mailing_id) &&
              ((what.is === 'opened' ? opened_at : clicked_at) ?? Infinity) < before,
          )
        }
        case 'answered':
          return isThere(
            db,
            q
              .selectFrom('hand_overs')
              .select('id')
              .where('sequence_id', '=', sequence_id)
              .where('person_id', '=', person_id)
              .where('round', '=', round)
              .where('step', '=', what.step)
              .where('taken', '=', Number(what.taken))
              .where('tried_at', '<', before)
              .$if(what.where !== undefined, (query) =>
                query.where(
                  carriedSql(what.where!, sql.ref('hand_overs.answer'), askedAt(db, now)),
                ),
              ),
          )
        case 'fits':
          return now < before && fits(what.rule, person_id)
      }
    }
  }
}

/** Later than anything is. */
const EVER = Number.MAX_SAFE_INTEGER / 2

const ordered = preparedOnce<{ person: number; from: number; before: number }>((value) =>
  q
    .selectFrom('orders')
    .select('id')
    .where('person_id', '=', value('person'))
    .where('at', '>=', value('from'))
    .where('at', '<', value('before'))
    .limit(1),
)
const did = preparedOnce<{ person: number; event: string; from: number; before: number }>((value) =>
  q
    .selectFrom('events')
    .select('id')
    .where('person_id', '=', value('person'))
    .where('name', '=', value('event'))
    .where('at', '>=', value('from'))
    .where('at', '<', value('before'))
    .limit(1),
)
const read = preparedOnce<
  { mailings: string; person: number; round: number },
  { mailing_id: number; opened_at: number | null; clicked_at: number | null }
>((value) =>
  q
    .selectFrom('recipients')
    .select(['mailing_id', 'opened_at', 'clicked_at'])
    .where(sql<boolean>`mailing_id in (select value from json_each(${value('mailings')}))`)
    .where('person_id', '=', value('person'))
    .where('round', '=', value('round')),
)
const listOf = (map: SequenceMap) => JSON.stringify(mailingsOf(map))

/** The mails of a map, found once. */
function mailingsOf(map: SequenceMap): number[] {
  let found = mailsOf.get(map)
  if (!found) mailsOf.set(map, (found = mailingsOfMap(map)))
  return found
}
const mailsOf = new WeakMap<SequenceMap, number[]>()

/** Whether somebody clicked on a link to an address in a mail. */
function clickedLink(
  db: Database,
  mailingId: number,
  { person_id, round }: Pick<Insider, 'person_id' | 'round'>,
  url: string,
  before: number,
): boolean {
  const clicks = q
    .selectFrom('acts')
    .innerJoin('mailing_links', (join) =>
      join
        .onRef('mailing_links.mailing_id', '=', 'acts.mailing_id')
        .onRef('mailing_links.no', '=', 'acts.link'),
    )
    .select('acts.id')
    .where('acts.mailing_id', '=', mailingId)
    .where('acts.person_id', '=', person_id)
    .where('acts.kind', '=', 'click')
    .where('acts.verdict', '=', 'human')
    .where('acts.round', '=', round)
    .where('acts.at', '<', before)
    .where('mailing_links.url', '=', url)
  return isThere(db, clicks)
}

const isThere = (db: Database, query: { limit(n: number): Parameters<typeof one>[1] }) =>
  one(db, query.limit(1)) !== undefined
