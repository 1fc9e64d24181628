import { sql, type Selectable, type SqlBool } from 'kysely'
import { enter, isHeldOut, mayComeIn, type EarlierRound } from '../../core/sequences'
import { addressed } from '../../core/delivery'
import { ruleToPredicate, type Predicate, type Rule } from '../../core/segments'
import { readAccount } from '../account'
import { isSuppressed, subscriptionState } from '../people'
import { all, preparedOnce, q, run, transact, type Database } from '../query'
import { moveRecipient } from '../sending'
import { askedAt, factsOf, readyNow, segmentById } from '../segments'
import { letSegmentIn } from './letting-in'
import { comingBy, nextComing, type Comer } from './coming'
import { markOf, setMark } from './marks'
import type { Schema } from '../schema'
import { arrivalFacts, placeRow } from './places'
import { asItRuns, runningSequences, sequenceById, type Sequence } from './sequences'

/** So many who arrived are let in at once, so that no transaction is long. */
const BATCH = 2_000

/** Why those left who came in and get nothing, so that they can be compared with the others. */
export const HELD_OUT = 'held out'

/** Whose days and hours count. */
export const zoneOf = (db: Database): string => readAccount(db)?.zone ?? 'UTC'

/**
 * Lets in who newly did what starts a sequence, read on from where it was read last, and who is to come in by hand; and
 * says whether there is more. Nobody comes in oftener than the sequence says, nor who has left its list again since.
 */
export function enrolNew(
  db: Database,
  sequence: Sequence,
  now: number,
): { entered: number; more: boolean } {
  return transact(db, () => {
    let entered = 0
    let more = false
    const letIn = doorOf(db, sequence, now)
    const zone = zoneOf(db)
    for (const [n, start] of sequence.map.start.by.entries()) {
      const upto = markOf(db, sequence.id, n)
      const found = comingBy(db, sequence, start, { upto, now, zone })
      for (const comer of found.comers) entered += Number(letIn(comer, n))
      if (found.segment !== undefined) letAllIn(db, sequence, n, found.segment, now)
      if (found.upto !== upto) setMark(db, sequence.id, n, found.upto)
      more ||= found.more
    }
    const arrived = q
      .selectFrom('sequence_arrivals')
      .select(['id', 'person_id', 'start'])
      .where('sequence_id', '=', sequence.id)
      .orderBy('id')
      .limit(BATCH)
    const arrivals = all(db, arrived)
    for (const { person_id, start } of arrivals)
      entered += Number(letIn({ person: person_id, by: null }, start))
    const last = arrivals.at(-1)
    if (last)
      run(
        db,
        q
          .deleteFrom('sequence_arrivals')
          .where('sequence_id', '=', sequence.id)
          .where('id', '<=', last.id),
      )
    return { entered, more: more || arrivals.length === BATCH }
  })
}

/** A whole segment is at the door; a segment that is gone is nobody. */
function letAllIn(db: Database, sequence: Sequence, start: number, segment: number, now: number) {
  const rule: Rule =
    segment === 0 ? { kind: 'all', of: [] } : { kind: 'segment', segmentId: segment }
  if (segment === 0 || segmentById(db, segment)) letSegmentIn(db, sequence, rule, now, start)
}

/** Lets somebody into a sequence by what they did elsewhere, or by hand: whether they came in. */
export function enrolPerson(db: Database, id: number, person: number, now: number): boolean {
  const sequence = sequenceById(db, id)
  return (
    sequence?.state === 'running' &&
    doorOf(db, asItRuns(db, sequence), now)({ person, by: null }, null)
  )
}

/**
 * Takes somebody out, by hand or by what `why` says, of each of their rounds, with what is on its way to them from it: of how
 * many rounds.
 */
export function takeOut(
  db: Database,
  sequenceId: number,
  person: number,
  now: number,
  why = 'by hand',
): number {
  return transact(db, () => {
    const { changes } = run(
      db,
      q
        .updateTable('enrolments')
        .set({ state: 'left', why, wakes: 0, ended_at: now })
        .where('sequence_id', '=', sequenceId)
        .where('person_id', '=', person)
        .where('state', '=', 'inside'),
    )
    const open = q
      .selectFrom('recipients')
      .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
      .select(['recipients.mailing_id', 'recipients.round', 'recipients.state'])
      .where('mailings.sequence_id', '=', sequenceId)
      .where('recipients.person_id', '=', person)
      .where('recipients.state', 'in', ['queued', 'deferred'])
    const answer = 'taken out of the sequence'
    for (const { mailing_id, round, state } of changes ? all(db, open) : [])
      moveRecipient(db, addressed(mailing_id, person, round), state, 'dropped', now, { answer })
    return changes
  })
}

/** When a start of any running sequence has something to look at by itself; null where none has. */
export function nextStartDue(db: Database): number | null {
  const zone = zoneOf(db)
  const dues = runningSequences(db).flatMap(({ id, map }) =>
    map.start.by.flatMap(
      (start, n) => nextComing(db, id, start, { upto: markOf(db, id, n), zone }) ?? [],
    ),
  )
  return dues.length ? Math.min(...dues) : null
}

/**
 * Who comes to a sequence's door is let in, where they may: they are subscribed to its list and not suppressed, fit its rule,
 * and were not inside before, or may come again. Says whether they came in.
 */
function doorOf(db: Database, sequence: Sequence, now: number) {
  const { rule, again } = sequence.map.start
  let asks: Predicate | null = null
  const { map } = sequence
  const zone = zoneOf(db)
  return ({ person, by }: Comer, start: number | null): boolean => {
    if (!mayBeInside(db, sequence, person)) return false
    const place = enter(map, now, arrivalFacts(db, person, zone, now))
    if (place === null) return false
    const rounds = roundsOf(db, sequence.id, person)
    if (!mayComeIn(again, rounds, now)) return false
    if (rule) {
      asks ??= ruleToPredicate(readyNow(db, rule), askedAt(db, now))
      if (!asks(factsOf(db, person)!)) return false
    }
    const isOut = isHeldOut(sequence.id, map.start.heldOut ?? 0, person)
    const out = isOut && { state: 'left' as const, why: HELD_OUT, wakes: 0 as const, ended_at: now }
    const row = { ...placeRow(map, place), ...out }
    enrol(db, sequence, { person, round: rounds.length, start, by }, row, now)
    return true
  }
}

function mayBeInside(db: Database, { list_id }: Sequence, person: number): boolean {
  return subscriptionState(db, person, list_id!) === 'subscribed' && !isSuppressed(db, person)
}

/** How often somebody was inside before; the latest last. */
export function roundsOf(db: Database, sequenceId: number, person: number): EarlierRound[] {
  return earlier(db).all({ sequenceId, person })
}

const earlier = preparedOnce<{ sequenceId: number; person: number }, EarlierRound>((value) =>
  q
    .selectFrom('enrolments')
    .select(['state', 'entered_at as entered'])
    // As terms rather than bare values: of those SQLite asks how common they are, and plans anew each time.
    .where('sequence_id', '=', sql<number>`+${value('sequenceId')}`)
    .where('person_id', '=', sql<number>`+${value('person')}`)
    .orderBy('round'),
)

function enrol(
  db: Database,
  { id, version }: Sequence,
  of: { person: number; round: number; start: number | null; by: number | null },
  place: ReturnType<typeof placeRow> & Partial<Pick<Row, 'state' | 'why' | 'ended_at'>>,
  now: number,
) {
  const { person, round, start, by } = of
  const began = { round, start, started_by: by, entered_at: now }
  const inside = { state: 'inside' as const, why: null, ended_at: null }
  comesIn(db).run({ sequence_id: id, person_id: person, version, ...inside, ...place, ...began })
}

type Row = Selectable<Schema['enrolments']>
const comesIn = preparedOnce<Row>((value) =>
  q.insertInto('enrolments').values({
    ...{ sequence_id: value('sequence_id'), person_id: value('person_id') },
    ...{ round: value('round'), version: value('version'), start: value('start') },
    ...{ started_by: value('started_by'), entered_at: value('entered_at') },
    ...{ state: value('state'), why: value('why'), ended_at: value('ended_at') },
    ...{ step: value('step'), due: value('due'), visit: value('visit') },
    ...{ arrived_at: value('arrived_at'), wakes: value('wakes') },
  }),
)

/** Undoes letting people in by hand: they wait no more, and who has come in since is out. Who it changed something for. */
export function letPeopleOut(
  db: Database,
  sequenceId: number,
  people: readonly number[],
  now: number,
): number[] {
  return transact(db, () => {
    const these = (table: 'sequence_arrivals' | 'enrolments') =>
      sql<SqlBool>`${sql.table(table)}.sequence_id = ${sequenceId} and ${sql.table(table)}.start is null
        and ${sql.table(table)}.person_id in (select value from json_each(${JSON.stringify(people)}))`
    const waited = all(
      db,
      q.deleteFrom('sequence_arrivals').where(these('sequence_arrivals')).returning('person_id'),
    )
    const inside = all(
      db,
      q
        .selectFrom('enrolments')
        .select('person_id')
        .distinct()
        .where(these('enrolments'))
        .where('state', '=', 'inside'),
    )
    for (const { person_id } of inside) takeOut(db, sequenceId, person_id, now)
    return [...new Set([...waited, ...inside].map(({ person_id }) => person_id))]
  })
}
