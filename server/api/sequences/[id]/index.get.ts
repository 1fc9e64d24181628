import {
  arrivalsOf,
  mailingsOfSequence,
  peopleInside,
  readSequences,
  standingAt,
  startableSequences,
  trafficOf,
} from '~~/database/sequences'
import { sequenceCautions, sequenceProblems } from '~~/cases/sequences'
import { readFields, readLists, eventNames } from '~~/database/people'
import { senderOf } from '~~/database/mailings'
import { readSignUps } from '~~/database/sign-ups'
import { readSegments } from '~~/database/segments'

/** A sequence with its map, its mails and what came of them, and who is inside where. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  const { id, name, state, map, revision, version, list_id, started_at } = sequence
  const { inside, finished, left, heldOut } = readSequences(db).find((one) => one.id === id)!
  return {
    ...{ id, name, state, map, revision, version, listId: list_id, startedAt: started_at },
    counts: { inside, finished, left, heldOut },
    standing: standingAt(db, id),
    traffic: trafficOf(db, id),
    mailings: mailingsOfSequence(db, id),
    people: peopleInside(db, id, 100),
    problems:
      state === 'running' || state === 'ended' ? [] : sequenceProblems(db, sequence, clock()),
    cautions: state === 'ended' ? [] : sequenceCautions(sequence),
    fields: readFields(db).map(({ key, name, kind }) => ({ key, name, kind })),
    signUps: readSignUps(db, clock()).map(({ id, name }) => ({ id, name })),
    arriving: arrivalsOf(db, id),
    others: startableSequences(db).filter((one) => one.id !== id),
    lists: readLists(db).map(({ id, name }) => ({ id, name })),
    segments: readSegments(db).map(({ id, name }) => ({ id, name })),
    events: eventNames(db),
    sender: senderOf(db, null),
  }
})
