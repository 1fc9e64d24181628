import { randomUUID } from 'node:crypto'
import { formFrom, signUpTemplates } from '~~/core/sign-ups'
import { readLists } from '~~/database/people'
import { addSignUp } from '~~/database/sign-ups'
import { newSignUpInput } from '~~/shared/sign-up-inputs'

/** A new sign-up from a template: a draft for the first list. */
export default defineEventHandler(async (event) => {
  const { name, template } = await readInput(event, newSignUpInput)
  const from = signUpTemplates.find(({ key }) => key === template)
  if (!from) throw notFound('There is no such template.')
  const { db, clock } = satchel()
  const first = readLists(db)[0] ?? null
  const form = formFrom(from, first, () => randomUUID().slice(0, 8))
  return { id: addSignUp(db, name, form, clock()) }
})
