import { checkAddress } from '~~/core/people'
import { transact } from '~~/database'
import { createAccount, readAccount } from '~~/database/account'
import { addList } from '~~/database/lists'
import { addUser, hasUsers } from '~~/database/users'
import { ownerInput } from '~~/shared/account-inputs'

/** The first visit: makes the account, its owner and a first list. Only while there is nobody. */
export default defineEventHandler(async (event) => {
  const input = await readInput(event, ownerInput)
  const { db, clock } = satchel()
  const checked = checkAddress(input.address)
  const address = checked.ok ? checked.normal : input.address
  const passwordHash = await hashPassword(input.password)
  const id = transact(db, () => {
    if (hasUsers(db)) return null
    if (!readAccount(db)) {
      createAccount(
        db,
        {
          name: input.accountName,
          zone: input.zone,
          currency: 'GBP',
          sender_name: input.accountName,
          sender_address: address,
          postal_address: '',
          pace_per_minute: null,
        },
        clock(),
      )
      addList(db, { name: 'Letters', description: `What ${input.accountName} writes.` }, clock())
    }
    return addUser(db, { name: input.name, address, passwordHash, role: 'owner' }, clock())
  })
  if (id === null)
    throw refused('This Satchel has an owner already. Sign in, or ask them to let you in.')
  await setUserSession(event, { user: { id } })
  return { ok: true }
})
