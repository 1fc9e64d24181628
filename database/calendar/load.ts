import { dayOf, type Day } from '../../core/time'
import { readAccount } from '../account'
import { eachForeseen, type Mailing } from '../mailings'
import { all, each, one, q, type Database } from '../query'
import { eachMailAhead } from '../sequences'
import { daysBetween, type Days } from './days'

/** How much mail a day brings to people, by what has been accepted and by what would go out as things stand. */
export interface DayLoad {
  day: Day
  /** How many get any, of mailings and of sequences, and how many get more than one. */
  people: number
  several: number
  /** How many would get mail by what stands still; they are not among the people above. */
  held: number
  /** Of each mailing that has mail on that day, to how many. */
  mailings: { id: number; people: number }[]
  ofSequences: number
}

/** The load of each day of the account's zone that has mail, exact, in one pass over the mail of these days. */
export function loadByDay(db: Database, from: Day, to: Day, now: number): DayLoad[] {
  const zone = readAccount(db)?.zone ?? 'UTC'
  const between = daysBetween(from, to, zone)
  const { begin, end } = between
  const days = tally(db, between)
  for (const mailing of mailingsOf(db, begin, end)) {
    const isHeld = mailing.state === 'held'
    const own = { mailing: mailing.sequence_id === null ? mailing.id : null }
    eachAccepted(db, mailing, begin, end, (person, at) =>
      days.count(person, at, { ...own, isHeld: false }),
    )
    if (mailing.state === 'sent') continue
    const coming = { ...own, isHeld }
    eachWaiting(db, mailing, now, (person, at) => days.count(person, at, coming))
    if (mailing.sequence_id === null)
      eachForeseen(db, mailing, now, (person, at) => days.count(person, at, coming))
  }
  eachMailAhead(db, now, end, (person, at, isHeld) =>
    days.count(person, at, { mailing: null, isHeld }),
  )
  return days.told(zone)
}

type Take = (person: number, at: number) => void
type Kept = Pick<Mailing, 'id'>

/** What may have mail between two times: what has begun and was not over before them, and what is still to begin. */
function mailingsOf(db: Database, from: number, to: number): Mailing[] {
  return all(
    db,
    q
      .selectFrom('mailings')
      .selectAll()
      .where('state', '<>', 'draft')
      .where((eb) => eb(eb.fn.coalesce('started_at', 'scheduled_at'), '<', to))
      .where((eb) => eb.or([eb('state', '<>', 'sent'), eb('finished_at', '>=', from)])),
  )
}

/** Who got a mailing between two times. */
export function eachAccepted(db: Database, mailing: Kept, from: number, to: number, take: Take) {
  const rows = q
    .selectFrom('recipients')
    .select(['person_id', 'accepted_at'])
    .where('mailing_id', '=', mailing.id)
    .where('accepted_at', '>=', from)
    .where('accepted_at', '<', to)
  for (const { person_id, accepted_at } of each(db, rows)) take(person_id, accepted_at!)
}

/** Whoever waits gets it when they are due, or now. */
export function eachWaiting(db: Database, mailing: Kept, now: number, take: Take) {
  const rows = q
    .selectFrom('recipients')
    .select(['person_id', 'due'])
    .where('mailing_id', '=', mailing.id)
    .where('state', 'in', ['queued', 'claimed', 'deferred'])
  for (const { person_id, due } of each(db, rows)) take(person_id, Math.max(due, now))
}

/** Counts people by days: a byte for each person on file, on each day that has any mail. */
function tally(db: Database, { bounds, many, dayAt }: Days) {
  const most =
    one(
      db,
      q.selectFrom('people').select((eb) => eb.fn.max('id').as('id')),
    )?.id ?? 0
  const days = Array.from({ length: many }, () => ({
    mailed: null as Uint8Array | null,
    held: null as Uint8Array | null,
    byMailing: new Map<number | null, number>(),
  }))
  return {
    count(
      person: number,
      at: number,
      { mailing, isHeld }: { mailing: number | null; isHeld: boolean },
    ) {
      const index = dayAt(at)
      if (index === null) return
      const day = days[index]!
      const counts = (day[isHeld ? 'held' : 'mailed'] ??= new Uint8Array(most + 1))
      if (counts[person]! < 255) counts[person]!++
      if (!isHeld) day.byMailing.set(mailing, (day.byMailing.get(mailing) ?? 0) + 1)
    },
    told: (zone: string): DayLoad[] =>
      days.flatMap(({ mailed, held, byMailing }, i) => {
        if (!mailed && !held) return []
        const [ofSequences = 0, mailings] = [
          byMailing.get(null),
          [...byMailing].flatMap(([id, people]) => (id === null ? [] : [{ id, people }])),
        ]
        return {
          day: dayOf(bounds[i]!, zone),
          people: atLeast(mailed, 1),
          several: atLeast(mailed, 2),
          held: atLeast(held, 1),
          mailings: mailings.toSorted((a, b) => a.id - b.id),
          ofSequences,
        }
      }),
  }
}

function atLeast(counts: Uint8Array | null, least: number): number {
  let n = 0
  for (const count of counts ?? []) if (count >= least) n++
  return n
}
