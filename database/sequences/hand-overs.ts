import { randomBytes } from 'node:crypto'
import type { Selectable } from 'kysely'
import { inPath } from '../../core/letters'
import { OF_EVENT, type HandOver } from '../../core/sequences'
import { beganBy, readerById, roundKey, valuesOf } from '../people'
import { all, one, q, run, type Database } from '../query'
import type { Schema } from '../schema'
import { seal, unseal } from '../sealed'

export type HandedOver = Selectable<Schema['hand_overs']>

/** Where an act of a step stands: whose it is, which time they are inside, and which time they came by. */
export interface At {
  sequenceId: number
  person: number
  round: number
  step: string
  visit: number
  /** Which of the step's acts. */
  act: number
}

/** Keeps what another program is to be told of somebody, as things stand now; due at once. Once for each place. */
export function addHandOver(
  db: Database,
  { url, how, fields }: HandOver,
  { name, ...at }: At & { /** The sequence's. */ name: string },
  now: number,
) {
  const person = readerById(db, at.person)
  if (!person) return
  const values: Record<string, unknown> = valuesOf(person)
  const round = { person_id: at.person, round: at.round }
  const carried = beganBy(db, at.sequenceId, [round]).get(roundKey(round))?.props ?? {}
  const byPath = new Map(Object.entries(carried).map(([name, value]) => [inPath(name), value]))
  const valueOf = (from: string) =>
    (from.startsWith(OF_EVENT) ? byPath.get(from.slice(OF_EVENT.length)) : values[from]) ?? null
  const body = {
    ...{ id: keyOf(at), how, at: new Date(now).toISOString() },
    sequence: { id: at.sequenceId, name },
    person: { id: person.id, address: person.address },
    fields: Object.fromEntries(fields.map(({ as, from }) => [as, valueOf(from)])),
  }
  const { sequenceId: sequence_id, person: person_id, ...place } = at
  run(
    db,
    q
      .insertInto('hand_overs')
      .values({
        sequence_id,
        person_id,
        ...place,
        url,
        body: JSON.stringify(body),
        at: now,
        due: now,
      })
      .onConflict((c) => c.doNothing()),
  )
}

/** By it the other program knows what it was told before, however often it is sent. */
export const keyOf = ({ sequenceId, person, round, step, visit, act }: At): string =>
  [sequenceId, person, round, step, visit, act].join('.')

/** The key that signs what a sequence hands over; made when it is asked for first. */
export function handOverKey(db: Database, sequenceId: number): string {
  const found = q.selectFrom('sequences').select('hook_key').where('id', '=', sequenceId)
  const sealed = one(db, found)?.hook_key
  if (sealed) return unseal(db, sealed)
  const key = randomBytes(24).toString('base64url')
  const set = { hook_key: seal(db, key) }
  run(db, q.updateTable('sequences').set(set).where('id', '=', sequenceId))
  return key
}

/** The ids of hand-overs that are due, those first that have been the longest. */
export function handOversDue(db: Database, now: number, limit: number): number[] {
  const due = q.selectFrom('hand_overs').select('id').where('due', '<=', now)
  return all(db, due.orderBy('due').limit(limit)).map(({ id }) => id)
}

export function handOverById(db: Database, id: number): HandedOver | undefined {
  return one(db, q.selectFrom('hand_overs').selectAll().where('id', '=', id))
}

/** What came of a try: taken or refused, or when it is tried again. */
export function handOverTried(
  db: Database,
  { id, tries }: Pick<HandedOver, 'id' | 'tries'>,
  of: { taken: boolean | null; said: string; answer: object; due: number | null },
  now: number,
) {
  const { taken, said, answer, due } = of
  const set = {
    ...{ due, taken: taken === null ? null : Number(taken), said: said.slice(0, 300) },
    ...{ answer: JSON.stringify(answer), tries: tries + 1, tried_at: now },
  }
  run(db, q.updateTable('hand_overs').set(set).where('id', '=', id))
}

/** Hands over once more, now, what was answered or given up; whether there is such a one. */
export function handOverAgain(db: Database, sequenceId: number, id: number, now: number): boolean {
  const again = q
    .updateTable('hand_overs')
    .set({ due: now, at: now, tries: 0, taken: null })
    .where('id', '=', id)
    .where('due', 'is', null)
  return run(db, again.where('sequence_id', '=', sequenceId)).changes === 1
}

/** The last of a sequence with what was answered, the latest first. */
export function lastHandOvers(db: Database, sequenceId: number, limit: number) {
  return all(
    db,
    q
      .selectFrom('hand_overs as h')
      .innerJoin('people as p', 'p.id', 'h.person_id')
      .select(['h.id', 'h.person_id', 'p.address', 'h.round', 'h.step', 'h.act', 'h.at', 'h.due'])
      .select(['h.tries', 'h.taken', 'h.said', 'h.answer', 'h.tried_at'])
      .where('h.sequence_id', '=', sequenceId)
      .orderBy('h.at', 'desc')
      .orderBy('h.id', 'desc')
      .limit(limit),
  )
}
