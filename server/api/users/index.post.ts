import { hashPassword } from '~~/cases/team'
import { checkAddress } from '~~/core/people'
import { addUser, userByAddress } from '~~/database/account'
import { userInput } from '~~/shared/account-inputs'

/** Lets somebody in who works here. */
export default defineEventHandler(async (event) => {
  const { name, address: given, password, role } = await readInput(event, userInput)
  const { db, clock } = satchel()
  const checked = checkAddress(given)
  const address = checked.ok ? checked.normal : given
  if (userByAddress(db, address)) throw refused('Somebody with this address works here already.')
  const passwordHash = await hashPassword(password)
  return { id: addUser(db, { name, address, passwordHash, role }, clock()) }
})
