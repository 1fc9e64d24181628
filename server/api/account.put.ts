import { settingsOf, updateAccount } from '~~/database/account'
import { accountChangeInput } from '~~/shared/account-inputs'

/** Changes the settings over the version their editor saw. */
export default defineEventHandler(async (event) => {
  const { version, ...settings } = await readInput(event, accountChangeInput)
  if (version !== settingsOf(account()).version)
    throw overtaken('Somebody else changed the settings meanwhile. Look at theirs first.')
  updateAccount(satchel().db, settings)
  return settingsOf(account())
})
