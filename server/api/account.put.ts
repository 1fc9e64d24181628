import { settingsOf, updateAccount } from '~~/database/account'
import { accountChangeInput } from '~~/shared/account-inputs'

/** Changes the settings over the version their editor saw; who letters come from is changed by owners alone. */
export default defineEventHandler(async (event) => {
  const { version, ...settings } = await readInput(event, accountChangeInput)
  if (version !== settingsOf(account()).version)
    throw overtaken('Somebody else changed the settings meanwhile. Look at theirs first.')
  const { sender_name, sender_address } = account()
  const sameSender =
    sender_name === settings.sender_name && sender_address === settings.sender_address
  if (!sameSender && me(event).user.role !== 'owner')
    throw createError({ statusCode: 403, message: 'Only an owner changes who letters come from.' })
  updateAccount(satchel().db, settings)
  return settingsOf(account())
})
