import { readForm } from '~~/core/sign-ups'
import { changeSignUp } from '~~/database/sign-ups'
import { signUpInput } from '~~/shared/sign-up-inputs'

/** Changes a sign-up's draft over the revision its editor saw; what is published stays as it is. */
export default defineEventHandler(async (event) => {
  const { name, form: given, revision } = await readInput(event, signUpInput)
  const { id } = signUpOf(event)
  const form = readForm(given)
  if (!form) throw refused('This form can’t be read, so it was not kept.')
  if (!changeSignUp(satchel().db, id, { name, form }, revision))
    throw overtaken('Somebody else has changed this sign-up in the meantime. Look at theirs first.')
  return { revision: revision + 1 }
})
