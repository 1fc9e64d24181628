import { sql, type Selectable } from 'kysely'
import { startingLetter, type Letter } from '../../core/letters'
import {
  alreadyThere,
  emptyMap,
  mailingsOfMap,
  readMap,
  withMailings,
  type SequenceMap,
  type Starting,
} from '../../core/sequences'
import {
  createMailing,
  deleteMailing,
  goOnWithMailing,
  holdMailing,
  mailingById,
  moveMailing,
} from '../mailings'
import { copyLabels } from '../labels'
import { letterOf } from '../letters'
import { all, one, q, run, transact, type Database } from '../query'
import { noteSentBefore, watchFor } from './cues'
import { indexDates } from './date-index'
import { addJob } from '../jobs'
import { letSegmentIn } from './letting-in'
import { beginMarks, carryMarks } from './marks'
import { beginJudging } from './split-shares'
import type { Schema } from '../schema'

export type Sequence = Omit<Selectable<Schema['sequences']>, 'map'> & { map: SequenceMap }

/** All sequences with how many are inside, came out at the end, and left on the way. */
export function readSequences(db: Database) {
  const count = (state: string, place = sql`n.place <> 'held out'`) =>
    sql<number>`(select coalesce(sum(n.people), 0) from sequence_standing as n where n.sequence_id = sequences.id and n.state = ${state} and ${place})`
  return all(
    db,
    q
      .selectFrom('sequences')
      .select(['id', 'name', 'state', 'version', 'started_at', 'archived_at'])
      .select([
        count('inside').as('inside'),
        count('finished').as('finished'),
        count('left').as('left'),
        count('left', sql`n.place = 'held out'`).as('heldOut'),
      ])
      .orderBy('name'),
  )
}

/** Sequences that somebody can be let into, now or once they run, by name. */
export function startableSequences(db: Database) {
  const found = q.selectFrom('sequences').select(['id', 'name', 'state', 'list_id'])
  return all(
    db,
    found.where('state', '!=', 'ended').where('archived_at', 'is', null).orderBy('name'),
  )
}

export function sequenceById(db: Database, id: number): Sequence | undefined {
  const row = one(db, q.selectFrom('sequences').selectAll().where('id', '=', id))
  return row && withMap(row)
}

/** Those that run, with the maps by which people come in: what is drawn beside them is not published yet. */
export function runningSequences(db: Database): Sequence[] {
  return all(db, q.selectFrom('sequences').selectAll().where('state', '=', 'running')).map((row) =>
    asItRuns(db, { ...row, map: emptyMap }),
  )
}

/** A sequence with the map by which people come in; before it ever ran, as it is drawn. */
export const asItRuns = (db: Database, sequence: Sequence): Sequence =>
  sequence.version > 0
    ? { ...sequence, map: mapOfVersion(db, sequence.id, sequence.version) }
    : sequence

function withMap(row: Selectable<Schema['sequences']>): Sequence {
  return { ...row, map: mapFrom(row.map) }
}

function mapFrom(json: string): SequenceMap {
  const map = readMap(JSON.parse(json))
  if (!map) throw new Error('A stored map is always readable.')
  return map
}

/** The map by which somebody is led who entered by a version. */
export function mapOfVersion(db: Database, sequenceId: number, version: number): SequenceMap {
  const row = one(
    db,
    q
      .selectFrom('sequence_versions')
      .select('map')
      .where('sequence_id', '=', sequenceId)
      .where('version', '=', version),
  )
  return row ? mapFrom(row.map) : emptyMap
}

/** Makes a sequence as a draft with nothing in it; its id. */
export function addSequence(
  db: Database,
  name: string,
  listId: number | null,
  now: number,
): number {
  const values = { name, list_id: listId, map: JSON.stringify(emptyMap), created_at: now }
  return run(db, q.insertInto('sequences').values(values)).id
}

/** Puts a sequence that does not run away, or (null) back among the others; false where it runs. */
export function archiveSequence(db: Database, id: number, at: number | null): boolean {
  const change = q.updateTable('sequences').set({ archived_at: at }).where('id', '=', id)
  return run(db, change.where('state', 'in', ['draft', 'ended'])).changes === 1
}

/** Makes a draft of its own with the same map, and a copy of each letter; its id. */
export function duplicateSequence(db: Database, sequence: Sequence, now: number): number {
  return transact(db, () => {
    const id = addSequence(db, `${sequence.name.slice(0, 95)} copy`, sequence.list_id, now)
    const copy = sequenceById(db, id)!
    const map = withMailings(sequence.map, (mailingId) => {
      const mailing = mailingById(db, mailingId)
      return mailing
        ? addMailOf(db, copy, mailing.name, now, letterOf(db, mailing.letter_id))
        : mailingId
    })
    changeSequence(db, copy, { name: copy.name, listId: copy.list_id, map }, copy.revision)
    copyLabels(db, 'sequence', sequence.id, id)
    return id
  })
}

/**
 * Changes what a sequence is called, and until it has ended its list and map, over the revision its editor saw. While it runs
 * the map is drawn beside the one by which people come in, until it is published. Once it has run its list stays: its mails
 * carry that list's name, and leaving it is leaving them. False where somebody was faster.
 */
export function changeSequence(
  db: Database,
  before: Sequence,
  change: { name: string; listId: number | null; map: SequenceMap },
  sawRevision: number,
): boolean {
  const still = before.state === 'ended'
  return transact(db, () => {
    const { changes } = run(
      db,
      q
        .updateTable('sequences')
        .set({ name: change.name, revision: sawRevision + 1 })
        .$if(!still, (query) =>
          query.set({
            list_id: before.version > 0 ? before.list_id : change.listId,
            map: JSON.stringify(change.map),
          }),
        )
        .where('id', '=', before.id)
        .where('revision', '=', sawRevision),
    )
    if (changes === 0) return false
    if (still) return true
    run(
      db,
      q
        .updateTable('mailings')
        .set({ plan: planWith(change.map) })
        .where('sequence_id', '=', before.id)
        .where('started_at', 'is', null),
    )
    if (before.version > 0) return true
    run(
      db,
      q
        .updateTable('mailings')
        .set({ list_id: change.listId })
        .where('sequence_id', '=', before.id)
        .where('started_at', 'is', null),
    )
    return true
  })
}

/** Of a plan, a sequence's mails have the sender alone. */
const planWith = ({ start: { sender } }: SequenceMap) => JSON.stringify(sender ? { sender } : {})

/** A mailing for a new mail step, with a letter to begin with; its id. */
export function addMailOf(
  db: Database,
  sequence: Sequence,
  name: string,
  now: number,
  letter: Letter = startingLetter(),
): number {
  return transact(db, () => {
    const id = createMailing(db, { name, listId: sequence.list_id, letter }, now)
    run(
      db,
      q
        .updateTable('mailings')
        // People get it when they come by, however much other mail they had.
        .set({ sequence_id: sequence.id, past_cap: 1, plan: planWith(sequence.map) })
        .where('id', '=', id),
    )
    return id
  })
}

/** The mailings of a sequence with what came of them, those of earlier versions among them. */
export function mailingsOfSequence(db: Database, sequenceId: number) {
  return all(
    db,
    q
      .selectFrom('mailings')
      .innerJoin('letters', 'letters.id', 'mailings.letter_id')
      .leftJoin('mailing_totals as t', 't.mailing_id', 'mailings.id')
      .select(['mailings.id', 'mailings.name', 'mailings.started_at', 'mailings.state'])
      .select(['letters.subject', 't.accepted', 't.complained', 't.bounced'])
      .select(['t.opened', 't.clicked', 't.queued', 't.deferred', 't.failed'])
      .where('mailings.sequence_id', '=', sequenceId)
      .orderBy('mailings.id'),
  )
}

/**
 * Lets a sequence run, from now on: who joined before does not come in. Or publishes what was drawn beside one that runs. Its
 * map becomes a version of its own where it is another than the last one; mails in no map go with their letters. With
 * `moves` those inside are moved to it where their step is still there; with `spread` those who waited through a pause go on
 * over so long, ms. Whether anything began.
 */
export function startSequence(
  db: Database,
  sequence: Sequence,
  now: number,
  { moves = false, spread = 0 }: { moves?: boolean; spread?: number } = {},
): boolean {
  return transact(db, () => {
    const { id, map } = sequence
    const last = sequence.version > 0 ? mapOfVersion(db, id, sequence.version) : null
    const same = last !== null && JSON.stringify(last) === JSON.stringify(map)
    const version = sequence.version + (same ? 0 : 1)
    const ran = sequence.state === 'running'
    if (ran && same) return false
    const begun = run(
      db,
      q
        .updateTable('sequences')
        .set({
          state: 'running',
          version,
          started_at: sequence.started_at ?? now,
          archived_at: null,
          ...(sequence.state === 'paused' && { resumed_at: now, spread }),
        })
        .where('id', '=', id)
        .where('state', '=', sequence.state)
        .where('state', '!=', 'ended'),
    ).changes
    if (begun === 0) return false
    if (!same)
      run(
        db,
        q
          .insertInto('sequence_versions')
          .values({ sequence_id: id, version, map: JSON.stringify(map), at: now }),
      )
    beginStarts(db, sequence, ran ? last : null, now)
    beginJudging(db, id, map, last, now)
    const already = map.start.already && !last?.start.already ? alreadyThere(map.start) : null
    if (already) letSegmentIn(db, sequence, already, now)
    const kept = new Set([map, ...mapsInside(db, id)].flatMap(mailingsOfMap))
    for (const mail of mailingsOfSequence(db, id))
      // What was taken out of the map is kept until now, so that a step can be brought back with its letter.
      if (mail.started_at === null && !kept.has(mail.id)) deleteMailing(db, mail.id)
      else goOnWithMailing(db, mail.id, now)
    if (moves && !same) addJob(db, 'move-inside', { sequence: id, version }, now)
    return true
  })
}

/** What newly happens lets in from now on; behind what still ran, also what was not read yet. */
function beginStarts(
  db: Database,
  { id, map: { start } }: Sequence,
  ran: SequenceMap | null,
  now: number,
) {
  const begin = ran
    ? carryMarks(db, id, ran.start.by, start.by, now)
    : beginMarks(db, id, start.by, now)
  watchAgain(db)
  for (const n of begin) {
    const one = start.by[n]!
    if (one.is === 'mailed' && one.did === 'not opened') noteSentBefore(db, id, one, now)
  }
}

/** The maps that somebody inside is led by. */
export function mapsInside(db: Database, id: number): SequenceMap[] {
  const versions = q
    .selectFrom('sequence_standing')
    .select('version')
    .distinct()
    .where('sequence_id', '=', id)
    .where('state', '=', 'inside')
    .where('people', '>', 0)
  return all(db, versions).map(({ version }) => mapOfVersion(db, id, version))
}

/** Stops a sequence for a while: nobody comes in, nobody goes on, nothing goes out. */
export function pauseSequence(db: Database, id: number, now: number): boolean {
  return transact(db, () => {
    if (!move(db, id, ['running'], 'paused')) return false
    watchAgain(db)
    for (const mailing of mailingsOfSequence(db, id))
      holdMailing(db, mailing.id, { held_by: 'hand', held_note: null }, now)
    return true
  })
}

/** Ends a sequence for good: who is inside leaves. How many that were; null where it never ran or had ended. */
export function endSequence(db: Database, id: number, now: number): number | null {
  return transact(db, () => {
    if (!move(db, id, ['running', 'paused'], 'ended')) return null
    watchAgain(db)
    for (const mailing of mailingsOfSequence(db, id))
      moveMailing(db, mailing.id, ['sending', 'held'], 'sent', { finished_at: now, held_by: null })
    return run(
      db,
      q
        .updateTable('enrolments')
        .set({ state: 'left', why: 'the sequence ended', wakes: 0, ended_at: now })
        .where('sequence_id', '=', id)
        .where('state', '=', 'inside'),
    ).changes
  })
}

/** What running sequences begin by is noted, or found by an index; and nothing else. */
function watchAgain(db: Database) {
  const maps = runningSequences(db).map(({ map }) => map)
  watchFor(
    db,
    maps.flatMap(({ start }) => start.by),
  )
  indexDates(db, maps)
}

function move(
  db: Database,
  id: number,
  from: readonly Sequence['state'][],
  to: Sequence['state'],
): boolean {
  const moved = q
    .updateTable('sequences')
    .set({ state: to })
    .where('id', '=', id)
    .where('state', 'in', [...from])
  return run(db, moved).changes === 1
}

/** Deletes a sequence that never ran, with its letters. Whether it was there to delete. */
export function deleteSequence(db: Database, id: number): boolean {
  return transact(db, () => {
    if (sequenceById(db, id)?.state !== 'draft') return false
    for (const mailing of mailingsOfSequence(db, id)) deleteMailing(db, mailing.id)
    return run(db, q.deleteFrom('sequences').where('id', '=', id)).changes === 1
  })
}

const isByJoining = (start: Starting) => start.is === 'joined' && start.signUpId === null

/** The running sequences that somebody comes into by joining a list. */
export function startedByJoining(db: Database, listId: number): Sequence[] {
  return runningSequences(db).filter(
    ({ map, list_id }) => list_id === listId && map.start.by.some(isByJoining),
  )
}
