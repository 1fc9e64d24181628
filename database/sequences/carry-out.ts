import { addressed } from '../../core/delivery'
import { addToValue, readFieldValue } from '../../core/people'
import type { Effect } from '../../core/sequences'
import { addDays, dayOf } from '../../core/time'
import {
  addNote,
  addTask,
  changePerson,
  changeSubscription,
  isSuppressed,
  listById,
  readerById,
  readFields,
  readTags,
  tagNamed,
  tagPeople,
  valuesOf,
} from '../people'
import { preparedOnce, q, rowsInserter, type Database } from '../query'
import type { Schema } from '../schema'
import { isRecipient, type recipientAdder } from '../sending'
import { enrolPerson, takeOut, zoneOf } from './entering'
import { addHandOver, type At } from './hand-overs'
import { addTelling } from './tellings'

/** Does in the account what a step asks for, in its caller's transaction. What it names and is gone is passed over. */
export function carryOut(
  db: Database,
  effect: Effect,
  at: At,
  {
    list,
    sequence,
    mails,
  }: {
    /** On whose behalf it writes. */
    list: number
    /** Its name. */
    sequence: string
    /** Puts them on a mail's list. */
    mails: Pick<ReturnType<typeof recipientAdder>, 'add'>
  },
  now: number,
) {
  const { person, round } = at
  switch (effect.is) {
    case 'mail':
      // A map that was published meanwhile may have let them fall on another version.
      if (effect.others?.some((other) => isRecipient(db, addressed(other, person, round)))) return
      return mails.add(addressed(effect.mailingId, person, round))
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
      const value = clears ? null : readFieldValue(effect.value, field.kind, { separator: ',' })
      // What is no value of this kind leaves what is there.
      if (value == null && !clears) return
      return void changePerson(db, person, { values: { [field.key]: value ?? null } }, now)
    }
    case 'add': {
      const field = readFields(db).find(({ key }) => key === effect.field)
      const theirs = field && readerById(db, person)
      if (!field || !theirs) return
      const sum = addToValue(valuesOf(theirs)[field.key], effect.value, field.kind)
      return void (sum !== null && changePerson(db, person, { values: { [field.key]: sum } }, now))
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
    case 'task': {
      const due = dayOf(addDays(now, effect.days, zoneOf(db)), zoneOf(db))
      const task = { text: effect.text, due, for: effect.to || null, by: sequence }
      return void addTask(db, person, task, now)
    }
    case 'tell':
      return void addTelling(db, { ...at, to: effect.to, text: effect.text }, now)
    case 'hand':
      return void addHandOver(db, effect, { ...at, name: sequence }, now)
    case 'stop':
      return void takeOut(db, effect.sequenceId, person, now, `taken out by ${sequence}`)
    case 'start':
      return void enrolPerson(db, effect.sequenceId, person, now)
  }
}

interface Round {
  sequence_id: number
  person_id: number
  round: number
  version: number
}

/** Notes that people went by a way out of a step: written on their trails, and counted, when all have, by `count`. */
export function passingBy(db: Database) {
  const rows: (string | number)[][] = []
  const many = new Map<string, Schema['sequence_traffic']>()
  return {
    pass(of: Round, { step, way }: { step: string; way: number }, visit: number, at: number) {
      const { sequence_id, person_id, round, version } = of
      rows.push([sequence_id, person_id, round, visit, step, way, at])
      const key = `${sequence_id} ${version} ${step} ${way}`
      const counted = many.get(key)
      if (counted) counted.people++
      else many.set(key, { sequence_id, version, step, way, people: 1 })
    },
    count() {
      trail(db)(rows.splice(0))
      for (const counted of many.values()) traffic(db).run(counted)
      many.clear()
    },
  }
}

const trails = new WeakMap<Database, ReturnType<typeof rowsInserter>>()
function trail(db: Database) {
  const columns = ['sequence_id', 'person_id', 'round', 'visit', 'step', 'way', 'at'] as const
  const write = trails.get(db) ?? rowsInserter(db, 'sequence_trail', columns)
  trails.set(db, write)
  return write
}
const traffic = preparedOnce<Schema['sequence_traffic']>((value) =>
  q
    .insertInto('sequence_traffic')
    .values({
      ...{ sequence_id: value('sequence_id'), version: value('version') },
      ...{ step: value('step'), way: value('way'), people: value('people') },
    })
    .onConflict((c) =>
      c
        .columns(['sequence_id', 'version', 'step', 'way'])
        .doUpdateSet((eb) => ({ people: eb('sequence_traffic.people', '+', value('people')) })),
    ),
)
