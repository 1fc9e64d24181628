import { MOST_COUNTED, waitingToGoOn } from '~~/database/sequences'

/** How many who are inside a paused sequence are due by now; `more` where they are more than are counted. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const people = waitingToGoOn(db, sequenceOf(event).id, clock())
  return { people: Math.min(people, MOST_COUNTED), more: people > MOST_COUNTED }
})
