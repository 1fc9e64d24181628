import { deleteSegment, segmentById, usesOfSegment } from '~~/database/segments'

/** Deletes a segment that nothing still to come depends on. */
export default defineEventHandler((event) => {
  const id = idOf(event)
  const { db, clock } = satchel()
  if (!segmentById(db, id)) throw notFound('This segment is not on file.')
  const { mailings, sequences, segments } = usesOfSegment(db, id)
  const waiting = mailings.filter(({ state }) => state !== 'sent')
  const names = [...waiting, ...sequences, ...segments].map(({ name }) => `“${name}”`)
  if (names.length) throw refused(`It is used by ${names.join(', ')}. Change those first.`)
  deleteSegment(db, id, clock())
  return { ok: true }
})
