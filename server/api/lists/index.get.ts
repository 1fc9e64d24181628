import { readAccount } from '~~/database/account'
import { listVersion } from '~~/database/people'

/** The lists with what readers see of them, and the List-Id that mail programs file them by (RFC 2919). */
export default defineEventHandler(() => {
  const { db } = satchel()
  const domain = readAccount(db)!.sender_address.split('@')[1]
  return countedLists(db).map((list) => ({
    ...list,
    listId: `${list.key}.${domain}`,
    version: listVersion(db, list.id)!,
  }))
})
