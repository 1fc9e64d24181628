import { handOverKey, lastHandOvers } from '~~/database/sequences'

/** Who was handed over to other programs last, what they answered, and the key that signs it. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const { id } = sequenceOf(event)
  return { key: handOverKey(db, id), handOvers: lastHandOvers(db, id, 50) }
})
