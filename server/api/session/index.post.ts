import { signInInput } from '~~/shared/account-inputs'
import { checkAddress } from '~~/core/people'
import { userByAddress } from '~~/database/users'

/** Attempts a minute that may fail for one address before it has to wait. */
const most = 8
const failures = new Map<string, { count: number; until: number }>()

export default defineEventHandler(async (event) => {
  const { address, password } = await readInput(event, signInInput)
  const { db, hostClock } = satchel()
  const checked = checkAddress(address)
  const normal = checked.ok ? checked.normal : address
  const failed = failures.get(normal)
  if (failed && failed.count >= most && failed.until > hostClock())
    throw createError({
      statusCode: 429,
      message: 'Too many attempts. Wait a minute and try again.',
    })
  const user = userByAddress(db, normal)
  if (!user || !(await verifyPassword(user.password_hash, password))) {
    const count = failed && failed.until > hostClock() ? failed.count + 1 : 1
    failures.set(normal, { count, until: hostClock() + 60_000 })
    throw createError({
      statusCode: 401,
      message: 'This address and password do not belong together.',
    })
  }
  failures.delete(normal)
  await setUserSession(event, { user: { id: user.id } })
  return { ok: true }
})
