import { planProblems, readPlan } from '~~/core/dispatch'
import { mailingById, updateMailing } from '~~/database/mailings'

/** Changes how a mailing goes out: its pace, its test, who is held out, its goal. */
export default defineEventHandler(async (event) => {
  dispatchedMailingOf(event)
  const mailing = unsentMailingOf(event)
  const plan = readPlan(await readBody(event))
  const { db } = satchel()
  for (const { mailingId } of plan.test?.variants ?? [])
    if (mailingId !== null && (mailingId === mailing.id || !mailingById(db, mailingId)))
      throw refused('This draft is gone. Choose another.')
  updateMailing(db, mailing.id, { plan: JSON.stringify(plan) })
  return { plan, problems: planProblems(plan) }
})
