import { addSignUp } from '~~/database/sign-ups'

/** Makes a copy of a sign-up, as a draft of its own. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const { name, form } = signUpOf(event)
  return { id: addSignUp(db, `${name.slice(0, 90)}, copy`, form, clock()) }
})
