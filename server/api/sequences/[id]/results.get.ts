/**
 * What came of a sequence: its goal and money beside those held out, its splits, who left and why, and when people read; of
 * all rounds, or of some, then with the figures of the map.
 */
export default defineEventHandler(async (event) => {
  const { clock } = satchel()
  const sequence = sequenceOf(event)
  const { id } = sequence
  const days = Number(getQuery(event).days)
  const which = roundsOf(event, sequence)
  const asked = { sequenceId: id, days: [7, 14, 30, 90].includes(days) ? days : 14, which }
  const from = `results of sequence ${id} for ${me(event).user.id}`
  return askLong('sequenceResults', { ...asked, now: clock() }, from)
})
