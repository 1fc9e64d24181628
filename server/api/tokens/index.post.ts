import { addApiToken } from '~~/database/imports'
import { tokenInput } from '~~/shared/account-inputs'

/** Makes a token for a program; it is shown this once. */
export default defineEventHandler(async (event) => {
  const { name } = await readInput(event, tokenInput)
  const { db, clock } = satchel()
  return addApiToken(db, name, clock())
})
