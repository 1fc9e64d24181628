import { dayOf, HOUR, nextDay, startOfDay } from '../../core/time'
import type { SignUpForm } from '../../core/sign-ups'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import { addCall, type Sending } from '../../database/sign-ups'
import { listById } from '../../database/people'

/** So long after the account's day began the team gets the one mail about everybody since the last. */
const DAILY_AT = 8 * HOUR

/** When the team is to be told of somebody who confirms now; null: it is not. */
export function tellDue(db: Database, { tell }: SignUpForm, now: number): number | null {
  if (tell.how === 'never' || !tell.to) return null
  if (tell.how === 'each') return now
  const { zone } = readAccount(db)!
  const today = dayOf(now, zone)
  const morning = startOfDay(today, zone) + DAILY_AT
  return now < morning ? morning : startOfDay(nextDay(today), zone) + DAILY_AT
}

/** Keeps for the form's webhook what its program is told of somebody who has confirmed. */
export function tellProgram(
  db: Database,
  of: {
    sending: Sending
    form: SignUpForm
    person: number
    joins: readonly { listId: number; wording: string }[]
    name: string
  },
  now: number,
) {
  const { sending, form, person, joins, name } = of
  const { id, sign_up_id, version, language, address, given, source, page, at } = sending
  const body = {
    ...{ event: 'sign-up confirmed', id, sent_in: time(at), confirmed: time(now) },
    sign_up: { id: sign_up_id, name, version },
    person: { id: person, address, values: given },
    lists: joins.map(({ listId, wording }) => ({
      ...{ id: listId, name: listById(db, listId)?.name ?? '' },
      wording,
    })),
    ...{ language, page, source },
  }
  addCall(db, { signUpId: sign_up_id, personId: person, url: form.webhook, body }, now)
}

const time = (at: number) => new Date(at).toISOString()
