import { updateAccount } from '~~/database/account'
import { accountInput } from '~~/shared/inputs'

export default defineEventHandler(async (event) => {
  updateAccount(satchel().db, await readInput(event, accountInput))
  return { ok: true }
})
