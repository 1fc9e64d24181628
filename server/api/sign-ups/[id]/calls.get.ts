import { hookKey, lastCalls } from '~~/database/sign-ups'

/** What the sign-up's webhook was told last, what it answered, and the key that signs it. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const { id } = signUpOf(event)
  return { key: hookKey(db, id), calls: lastCalls(db, id, 50) }
})
