import { nextSubscription, type SubscriptionAct, type SubscriptionState } from '../../core/people'
import { dropOpenRecipients } from '../sending'
import { preparedOnce, q, run, transact, type Database } from '../query'
import { wordingId } from '../wordings'

/** By which way a subscription changes, for its evidence. */
export interface Way {
  act: SubscriptionAct
  /** "import", "unsubscribe link", "one-click", "complaint", "form", "by hand" … */
  way: string
  ref?: string | null
  wording?: string | null
  ip?: string | null
  agent?: string | null
  /** What was sent in by a sign-up's form, and made it so. */
  sendingId?: number | null
}

/**
 * Asks for a subscription to become `wanted`, by some way. Where it changes, evidence is kept, and
 * somebody who left is dropped from every mailing to that list before its next claim.
 * Returns the state afterwards.
 */
export function changeSubscription(
  db: Database,
  personId: number,
  listId: number,
  wanted: SubscriptionState,
  by: Way,
  now: number,
): SubscriptionState | null {
  return transact(db, () => {
    const present = subscriptionState(db, personId, listId)
    const next = nextSubscription(present, wanted, by.act)
    if (next === null || next === present) return present
    run(
      db,
      q
        .insertInto('subscriptions')
        .values({ person_id: personId, list_id: listId, state: next, since: now })
        .onConflict((conflict) =>
          conflict.columns(['person_id', 'list_id']).doUpdateSet({ state: next, since: now }),
        ),
    )
    run(
      db,
      q.insertInto('evidence').values({
        person_id: personId,
        list_id: listId,
        at: now,
        state: next,
        way: by.way,
        way_ref: by.ref ?? null,
        wording_id: by.wording ? wordingId(db, by.wording) : null,
        ip: by.ip ?? null,
        agent: by.agent?.slice(0, 300) ?? null,
        sending_id: by.sendingId ?? null,
      }),
    )
    if (next === 'unsubscribed') dropOpenRecipients(db, personId, 'unsubscribed', now, listId)
    return next
  })
}

export function subscriptionState(
  db: Database,
  personId: number,
  listId: number,
): SubscriptionState | null {
  return subscriptionOf(db, personId, listId)?.state ?? null
}

/** How somebody stands on a list, and since when; undefined where they never were on it. */
export function subscriptionOf(db: Database, personId: number, listId: number) {
  return stands(db).one({ personId, listId })
}

const stands = preparedOnce<
  { personId: number; listId: number },
  { state: SubscriptionState; since: number }
>((value) =>
  q
    .selectFrom('subscriptions')
    .select(['state', 'since'])
    .where('person_id', '=', value('personId'))
    .where('list_id', '=', value('listId')),
)

/** Sets a person aside: never mailed again, whatever the lists say. The first reason stays. */
export function suppress(
  db: Database,
  personId: number,
  reason: 'bounced' | 'complained' | 'by-hand',
  detail: string,
  now: number,
) {
  transact(db, () => {
    run(
      db,
      q
        .insertInto('set_aside')
        .values({ person_id: personId, at: now, reason, detail: detail.slice(0, 500) })
        .onConflict((conflict) => conflict.doNothing()),
    )
    dropOpenRecipients(db, personId, 'suppressed', now)
  })
}
