import { endSequence } from '~~/database/sequences'

/** Ends a sequence for good: who is inside leaves. */
export default defineEventHandler((event) => {
  const { id } = sequenceOf(event)
  const { db, clock } = satchel()
  const left = endSequence(db, id, clock())
  if (left === null) throw refused('It never ran, or has ended already.')
  return { left }
})
