import { DateTime } from 'luxon'
import { freezeRule, isNameTaken, segmentById } from '~~/database/segments'

/** Keeps a segment's members as they are now, as a segment of its own with the day in its name. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const segment = segmentById(db, idOf(event))
  if (!segment) throw notFound('This segment is not on file.')
  const now = clock()
  const day = DateTime.fromMillis(now, { zone: account().zone }).toFormat('d LLL yyyy')
  const rule = { kind: 'segment' as const, segmentId: segment.id }
  const name = `${segment.name.slice(0, 80)}, ${day}`
  let free = name
  for (let n = 2; isNameTaken(db, free); n++) free = `${name} (${n})`
  return { id: freezeRule(db, free, rule, now) }
})
