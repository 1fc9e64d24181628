import { segmentById, usesOfSegment } from '~~/database/segments'

/** One segment, and where it is used. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const segment = segmentById(db, idOf(event))
  if (!segment) throw notFound('This segment is not on file.')
  const { mailings, sequences, segments } = usesOfSegment(db, segment.id)
  return {
    ...segment,
    usedBy: {
      mailings: mailings.map(({ id, name, state }) => ({ id, name, state })),
      sequences,
      segments: segments.map(({ id, name }) => ({ id, name })),
    },
  }
})
