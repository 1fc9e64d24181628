/** Who is inside and gets other mail within a day of the sequence's, as things stand. */
export default defineEventHandler((event) => {
  const { id } = sequenceOf(event)
  const from = `mail close to sequence ${id} for ${me(event).user.id}`
  return askLong('closeMail', { sequenceId: id, now: satchel().clock() }, from)
})
