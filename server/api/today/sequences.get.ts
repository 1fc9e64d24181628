/** The mail of the sequences on the run sheet, by its days: counted apart, since it may take a while. */
export default defineEventHandler((event) => {
  const from = `sequences of today for ${me(event).user.id}`
  return askLong('sequenceDays', { now: satchel().clock() }, from)
})
