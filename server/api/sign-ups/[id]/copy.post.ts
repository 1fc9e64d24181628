import { copyLabels } from '~~/database/labels'
import { addSignUp } from '~~/database/sign-ups'

/** Makes a copy of a sign-up, as a draft of its own. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const { id: from, name, form } = signUpOf(event)
  const id = addSignUp(db, `${name.slice(0, 90)}, copy`, form, clock())
  copyLabels(db, 'sign-up', from, id)
  return { id }
})
