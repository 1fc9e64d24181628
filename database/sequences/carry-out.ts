import { addressed } from '../../core/delivery'
import { readFieldValue } from '../../core/people'
import type { Effect } from '../../core/sequences'
import {
  addNote,
  changePerson,
  changeSubscription,
  isSuppressed,
  listById,
  readFields,
  readTags,
  tagNamed,
  tagPeople,
} from '../people'
import { q, run, type Database } from '../query'
import { addRecipient } from '../sending'
import { enrolPerson, takeOut } from './entering'

/** Does in the account what a step asks for, in its caller's transaction. What it names and is gone is passed over. */
export function carryOut(
  db: Database,
  effect: Effect,
  {
    person,
    round,
    list,
    sequence,
  }: { person: number; round: number; list: number; /** Its name. */ sequence: string },
  now: number,
) {
  switch (effect.is) {
    case 'mail':
      return addRecipient(db, addressed(effect.mailingId, person, round), now)
    case 'tag':
      return void tagPeople(db, [person], tagNamed(db, effect.tag.trim()), true)
    case 'untag': {
      const tag = readTags(db).find(
        ({ name }) => name.toLowerCase() === effect.tag.trim().toLowerCase(),
      )
      return void (tag && tagPeople(db, [person], tag.id, false))
    }
    case 'set': {
      const field = readFields(db).find(({ key }) => key === effect.field)
      if (!field) return
      const clears = effect.value.trim() === ''
      const value = clears ? null : readFieldValue(effect.value, field.kind)
      // What is no value of this kind leaves what is there.
      if (value == null && !clears) return
      return void changePerson(db, person, { values: { [field.key]: value ?? null } }, now)
    }
    case 'leave': {
      const by = { act: 'by-hand' as const, way: 'sequence' }
      return void changeSubscription(db, person, effect.listId ?? list, 'unsubscribed', by, now)
    }
    case 'join': {
      const agreed = { act: 'sequence' as const, way: 'sequence', wording: effect.statement }
      // Nobody is subscribed without words that they agreed to.
      if (effect.statement.trim() && listById(db, effect.listId) && !isSuppressed(db, person))
        changeSubscription(
          db,
          person,
          effect.listId,
          'subscribed',
          { ...agreed, ref: sequence },
          now,
        )
      return
    }
    case 'note':
      return void addNote(db, person, sequence, effect.text, now)
    case 'stop':
      return void takeOut(db, effect.sequenceId, person, now, `taken out by ${sequence}`)
    case 'start':
      return void enrolPerson(db, effect.sequenceId, person, now)
  }
}

/** Counts that somebody went by a way out of a step, and keeps it on their trail. */
export function countPassed(
  db: Database,
  { version, ...of }: { sequence_id: number; person_id: number; round: number; version: number },
  passed: { step: string; way: number; visit: number; at: number },
) {
  const { step, way } = passed
  run(db, q.insertInto('sequence_trail').values({ ...of, ...passed }))
  run(
    db,
    q
      .insertInto('sequence_traffic')
      .values({ sequence_id: of.sequence_id, version, step, way, people: 1 })
      .onConflict((c) =>
        c
          .columns(['sequence_id', 'version', 'step', 'way'])
          .doUpdateSet((eb) => ({ people: eb('sequence_traffic.people', '+', 1) })),
      ),
  )
}
