import { sequenceResults } from '~~/cases/sequences'

/** What came of a sequence: its goal and money beside those held out, its splits, who left and why, and when people read. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const days = Number(getQuery(event).days)
  return sequenceResults(db, sequenceOf(event), [7, 14, 30, 90].includes(days) ? days : 14, clock())
})
