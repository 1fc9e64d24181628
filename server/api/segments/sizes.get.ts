import { readSegments } from '~~/database/segments'

/** Sizes are counted again when a segment changed, or after so many ms. */
const FRESH = 10_000
let counted = { of: '', at: 0, sizes: {} as Record<number, number> }

/** How many are in each saved segment, by its id. */
export default defineEventHandler(async () => {
  const { db, clock, hostClock } = satchel()
  const segments = readSegments(db)
  const of = segments.map(({ id, version }) => `${id}.${version}`).join()
  if (counted.of === of && hostClock() - counted.at < FRESH) return counted.sizes
  const rules = segments.map(({ id }) => ({ kind: 'segment' as const, segmentId: id }))
  const sizes = await askLong('sizes', { rules, now: clock() })
  counted = {
    of,
    at: hostClock(),
    sizes: Object.fromEntries(segments.map(({ id }, i) => [id, sizes[i]!])),
  }
  return counted.sizes
})
