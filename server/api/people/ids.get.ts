import { idsOfPeople } from '~~/database/people'

/** The ids of everybody a table shows, to do something with all of them. */
export default defineEventHandler((event) =>
  idsOfPeople(satchel().db, peopleChoice(getQuery(event))),
)
