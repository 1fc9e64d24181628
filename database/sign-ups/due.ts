import { q, soonest, type Database } from '../query'

/** When something of a sign-up is to be done by itself next: a mail, a reminder, a lapse, a telling, a call; null: nothing. */
export function nextSignUpDue(db: Database): number | null {
  const of = q.selectFrom('sign_up_sendings')
  const toRemind = of.where('state', '=', 'pending').where('send_due', 'is', null)
  return soonest(db, [
    of.select((eb) => eb.fn.min('send_due').as('due')),
    toRemind.select((eb) => eb.fn.min('remind_due').as('due')),
    of.select((eb) => eb.fn.min('over_due').as('due')),
    of.select((eb) => eb.fn.min('tell_due').as('due')),
    q.selectFrom('webhook_calls').select((eb) => eb.fn.min('due').as('due')),
  ])
}
