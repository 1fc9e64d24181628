import { wayOf } from '~~/database/sequences'

/** One person's way through a sequence: each round with its steps and its mails. */
export default defineEventHandler((event) =>
  wayOf(satchel().db, sequenceOf(event).id, Number(getQuery(event).person)),
)
