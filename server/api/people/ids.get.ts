import { idsOfPeople } from '~~/database/people'

/** The ids of everybody a table shows, to do something with all of them. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const { segmentId, ...choice } = peopleChoice(getQuery(event))
  return segmentId === undefined
    ? idsOfPeople(db, choice)
    : askLong('peopleIds', { choice: { segmentId, ...choice }, now: clock() })
})
