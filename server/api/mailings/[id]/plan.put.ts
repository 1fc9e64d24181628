import { planProblems, readPlan } from '~~/core/dispatch'
import { transact } from '~~/database'
import { mailingById, updateMailing, planVersion } from '~~/database/mailings'
import { planInput } from '~~/shared/mailing-inputs'

/** Changes how a mailing goes out over the version its editor saw: its pace, its test, who is held out, its goal. */
export default defineEventHandler(async (event) => {
  const { plan: given, version } = await readInput(event, planInput)
  dispatchedMailingOf(event)
  const plan = readPlan(given)
  const { db } = satchel()
  return transact(db, () => {
    const mailing = unsentMailingOf(event)
    if (mailing.state === 'scheduled')
      throw refused('It is scheduled. Make it a draft again to change how it goes out.')
    if (planVersion(mailing) !== version)
      throw overtaken('Somebody else changed how this goes out meanwhile. Look at theirs first.')
    for (const { mailingId } of plan.test?.variants ?? [])
      if (mailingId !== null && (mailingId === mailing.id || !mailingById(db, mailingId)))
        throw refused('This draft is gone. Choose another.')
    updateMailing(db, mailing.id, { plan: JSON.stringify(plan) })
    return {
      plan,
      problems: planProblems(plan),
      version: planVersion(mailingById(db, mailing.id)!),
    }
  })
})
