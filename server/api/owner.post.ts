import { hashPassword } from '~~/cases/team'
import { checkAddress } from '~~/core/people'
import { transact } from '~~/database'
import { createAccount, readAccount, addUser, hasUsers } from '~~/database/account'
import { addList } from '~~/database/people'
import { ownerInput } from '~~/shared/account-inputs'

const taken = 'This Satchel has an owner already. Sign in, or ask them to let you in.'

/** The first visit: makes the account, its owner and a first list. Only while there is nobody. */
export default defineEventHandler(async (event) => {
  const input = await readInput(event, ownerInput)
  const { db, clock, hostClock, setupCode } = satchel()
  if (hasUsers(db)) throw refused(taken)
  const who = { address: 'setup', from: fromOf(event).address, device: null }
  refuseTooMany(event, waitToSignIn(who, hostClock()))
  countTry(who, hostClock())
  if (!sameSecret(plainSetupCode(input.code), setupCode)) {
    const message = 'This is not the setup code. Satchel printed it when it was started.'
    throw createError({ statusCode: 422, message, data: { fields: { code: message } } })
  }
  tryWasRight(who)
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
  if (id === null) throw refused(taken)
  signInHere(event, id)
  noteWhat(event, { id, name: input.name }, 'made the account', `/users/${id}`)
  return { ok: true }
})
