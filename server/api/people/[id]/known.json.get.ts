import { everythingKnown } from '~~/database/people'

/** All that is known of a person, to be given out to them. */
export default defineEventHandler((event) => {
  const known = everythingKnown(satchel().db, idOf(event))
  if (!known) throw notFound('This person is not on file.')
  setResponseHeaders(event, {
    'Content-Type': 'application/json; charset=utf-8',
    'Content-Disposition': 'attachment; filename="person.json"',
    'Cache-Control': 'no-store',
  })
  return JSON.stringify(known, null, 2)
})
