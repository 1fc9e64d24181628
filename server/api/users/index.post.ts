import { checkAddress } from '~~/core/people'
import { addUser, userByAddress, userById } from '~~/database/users'
import { userInput } from '~~/shared/account-inputs'

/** Lets somebody in who works here. Only the owner does. */
export default defineEventHandler(async (event) => {
  const { name, address: given, password } = await readInput(event, userInput)
  const { db, clock } = satchel()
  const me = await author(event)
  if (userById(db, me.id)?.role !== 'owner')
    throw createError({ statusCode: 403, message: 'Only the owner lets people in.' })
  const checked = checkAddress(given)
  const address = checked.ok ? checked.normal : given
  if (userByAddress(db, address)) throw refused('Somebody with this address works here already.')
  const passwordHash = await hashPassword(password)
  return { id: addUser(db, { name, address, passwordHash, role: 'member' }, clock()) }
})
