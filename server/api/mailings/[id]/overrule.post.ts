import { markKey, mayOverrule } from '~~/core/proof'
import { updateMailing } from '~~/database/mailings'
import { proofMailing } from '~~/database/proof'
import { userById } from '~~/database/users'
import { overruleInput } from '~~/shared/mailing-inputs'

/** Lets the blockers that there are now pass, with a reason that is kept. Owners only. */
export default defineEventHandler(async (event) => {
  const { reason } = await readInput(event, overruleInput)
  const mailing = unsentMailingOf(event)
  const { user } = await getUserSession(event)
  const { db, clock } = satchel()
  const me = userById(db, (user as { id: number }).id)
  if (me?.role !== 'owner')
    throw createError({ statusCode: 403, message: 'Only an owner may let a blocker pass.' })
  const bare = { ...mailing, overruled: null }
  const blockers = proofMailing(db, bare, clock()).filter(mayOverrule)
  if (blockers.length === 0) throw refused('No blocker can be passed over.')
  const overruled = { reason, byName: me.name, at: clock(), keys: blockers.map(markKey) }
  updateMailing(db, mailing.id, { overruled: JSON.stringify(overruled) })
  return { passed: blockers.length }
})
