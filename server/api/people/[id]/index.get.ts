import { nameOf } from '~~/core/people'
import { DateTime } from 'luxon'
import { ruleToPredicate } from '~~/core/segments'
import { dayOf } from '~~/core/time'
import { teamAddresses } from '~~/database/account'
import { readFields, personHistory, personDetails, pulsesOf, valuesOf } from '~~/database/people'
import type { Database } from '~~/database'
import { importById } from '~~/database/imports'
import { factsOf, askedAt, readSegments, readyNow } from '~~/database/segments'

/** All that a person's page shows. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const id = idOf(event)
  const now = clock()
  const details = personDetails(db, id)
  if (!details) throw notFound('This person is not on file.')
  const { person, ...rest } = details
  const { acts, ...history } = personHistory(db, id, now)
  const facts = factsOf(db, id)!
  const asked = askedAt(db, now)
  return {
    id,
    address: person.address,
    name: nameOf(person),
    joinedAt: person.joined_at,
    source: cameFrom(db, person.source),
    values: valuesOf(person),
    fields: readFields(db),
    currency: account().currency,
    today: dayOf(now, asked.zone),
    team: teamAddresses(db),
    pulse: pulsesOf(db, [id]).get(id)!,
    hours: readingHours(acts, asked.zone),
    segments: readSegments(db)
      .filter(({ id: segmentId }) =>
        ruleToPredicate(readyNow(db, { kind: 'segment', segmentId }), asked)(facts),
      )
      .map(({ id: segmentId, name }) => ({ id: segmentId, name })),
    ...history,
    ...rest,
  }
})

/** Where somebody comes from, in words; with the import it was, where that is still told of. */
function cameFrom(db: Database, source: string | null) {
  const importId = Number(/^import:(\d+)$/.exec(source ?? '')?.[1] ?? NaN)
  if (Number.isNaN(importId)) return source === null ? null : { words: source, importId: null }
  const found = importById(db, importId)
  return { words: found?.file_name ?? 'an import', importId: found ? importId : null }
}

/** How often they read in each hour of each weekday (Monday first) of the account's zone. */
function readingHours(
  acts: { opened_at: number | null; clicked_at: number | null }[],
  zone: string,
) {
  const counts = Array.from({ length: 7 }, () => new Array<number>(24).fill(0))
  for (const { opened_at } of acts) {
    if (opened_at === null) continue
    const { weekday, hour } = DateTime.fromMillis(opened_at, { zone })
    counts[weekday - 1]![hour]!++
  }
  return counts
}
