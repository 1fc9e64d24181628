import { nameOrAddress } from '../../core/people'
import type { CloseMail } from '../../core/sequences'
import { DAY } from '../../core/time'
import { eachForeseen } from '../mailings'
import { all, q, type Database } from '../query'
import { eachMailAhead } from '../sequences'
import { eachWaiting } from './load'

/** So far ahead is looked. */
const AHEAD = 30 * DAY
/** So many people are named. */
const NAMED = 20

/**
 * Who is inside a sequence and gets, as things stand, other mail within a day of one of its own: of another sequence, or a
 * mailing that is set to go out. What stands still is not counted.
 */
export function closeMail(db: Database, sequenceId: number, now: number): CloseMail {
  const own = new Map<number, number[]>()
  const besides: { person: number; at: number; of: string }[] = []
  eachMailAhead(db, now, now + AHEAD, (person, at, isHeld, sequence) => {
    if (sequence !== sequenceId || isHeld) return
    const theirs = own.get(person)
    if (theirs) theirs.push(at)
    else own.set(person, [at])
  })
  if (own.size === 0) return { people: 0, others: [], some: [] }
  // Once more: only of those is kept what else they get.
  eachMailAhead(db, now, now + AHEAD, (person, at, isHeld, sequence) => {
    if (sequence !== sequenceId && !isHeld && own.has(person))
      besides.push({ person, at, of: `sequence ${sequence}` })
  })
  for (const mailing of comingMailings(db, now + AHEAD)) {
    const take = (person: number, at: number) => {
      if (own.has(person)) besides.push({ person, at, of: `mailing ${mailing.id}` })
    }
    eachWaiting(db, mailing, now, take)
    eachForeseen(db, mailing, now, take)
  }
  return told(db, own, besides)
}

/** Mailings that are set to go out, or on their way. */
function comingMailings(db: Database, before: number) {
  return all(
    db,
    q
      .selectFrom('mailings')
      .selectAll()
      .where('sequence_id', 'is', null)
      .where('state', 'in', ['scheduled', 'sending'])
      .where((eb) => eb(eb.fn.coalesce('started_at', 'scheduled_at'), '<', before)),
  )
}

function told(
  db: Database,
  own: ReadonlyMap<number, readonly number[]>,
  besides: readonly { person: number; at: number; of: string }[],
): CloseMail {
  const hit = new Map<number, CloseMail['some'][number]>()
  const by = new Map<string, Set<number>>()
  for (const { person, at, of } of besides) {
    const near = own.get(person)?.find((mine) => Math.abs(mine - at) < DAY)
    if (near === undefined) continue
    by.set(of, (by.get(of) ?? new Set()).add(person))
    if (!hit.has(person)) hit.set(person, { id: person, name: '', at: near, otherAt: at, of })
  }
  const some = [...hit.values()].sort((a, b) => a.at - b.at).slice(0, NAMED)
  const names = namesOf(db, [...by.keys()])
  return {
    people: hit.size,
    others: [...by]
      .map(([of, people]) => ({ of, name: names.get(of) ?? '', people: people.size }))
      .sort((a, b) => b.people - a.people),
    some: some.map((one) => ({ ...one, name: nameOf(db, one.id), of: names.get(one.of) ?? '' })),
  }
}

function nameOf(db: Database, id: number): string {
  const [person] = all(
    db,
    q.selectFrom('people').select(['first_name', 'last_name', 'address']).where('id', '=', id),
  )
  return nameOrAddress(person!)
}

/** What sequences and mailings are called, by "sequence 3" and "mailing 4". */
function namesOf(db: Database, keys: readonly string[]): Map<string, string> {
  const ids = (kind: string) =>
    keys.flatMap((key) => (key.startsWith(`${kind} `) ? [Number(key.split(' ')[1])] : []))
  const read = (table: 'sequences' | 'mailings', kind: string) =>
    all(db, q.selectFrom(table).select(['id', 'name']).where('id', 'in', ids(kind))).map(
      ({ id, name }) => [`${kind} ${id}`, name] as const,
    )
  return new Map([...read('sequences', 'sequence'), ...read('mailings', 'mailing')])
}
