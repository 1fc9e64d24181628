import { markKey, mayOverrule } from '~~/core/proof'
import { updateMailing } from '~~/database/mailings'
import { proofMailing } from '~~/cases/mailings'
import { overruleInput } from '~~/shared/mailing-inputs'

/** Lets the blockers that there are now pass, with a reason that is kept. */
export default defineEventHandler(async (event) => {
  const { reason } = await readInput(event, overruleInput)
  const mailing = unsentMailingOf(event)
  const { user } = me(event)
  const { db, clock } = satchel()
  const bare = { ...mailing, overruled: null }
  const blockers = proofMailing(db, bare, clock()).filter(mayOverrule)
  if (blockers.length === 0) throw refused('No blocker can be passed over.')
  const overruled = { reason, byName: user.name, at: clock(), keys: blockers.map(markKey) }
  updateMailing(db, mailing.id, { overruled: JSON.stringify(overruled) })
  return { passed: blockers.length }
})
