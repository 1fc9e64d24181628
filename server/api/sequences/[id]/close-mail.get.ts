import { frequencyCap } from '~~/database/account'

/** Who is inside and gets other mail within a day of the sequence's, as things stand; and whether there is a frequency cap. */
export default defineEventHandler(async (event) => {
  const { id } = sequenceOf(event)
  const from = `mail close to sequence ${id} for ${me(event).user.id}`
  const { db, clock } = satchel()
  const found = await askLong('closeMail', { sequenceId: id, now: clock() }, from)
  return { ...found, hasCap: frequencyCap(db) !== null }
})
