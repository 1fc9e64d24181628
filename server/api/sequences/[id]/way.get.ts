import { wayOf } from '~~/database/sequences'

/** One person's way through a sequence: each round with its steps and its mails. */
export default defineEventHandler((event) => {
  const person = Number(getQuery(event).person)
  return { person, rounds: wayOf(satchel().db, sequenceOf(event).id, person) }
})
