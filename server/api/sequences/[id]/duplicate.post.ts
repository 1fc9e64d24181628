import { duplicateSequence } from '~~/database/sequences'

/** A draft of its own with the same map, and a copy of each letter. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  return { id: duplicateSequence(db, sequenceOf(event), clock()) }
})
