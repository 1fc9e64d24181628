import { updateAccount } from '~~/database/account'
import { accountInput } from '~~/shared/account-inputs'

export default defineEventHandler(async (event) => {
  updateAccount(satchel().db, await readInput(event, accountInput))
  return { ok: true }
})
