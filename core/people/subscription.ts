/** A person's standing on one list. A person who was never on it has none. */
export type SubscriptionState = 'pending' | 'subscribed' | 'unsubscribed'

/**
 * By which way a subscription changes: an import, the person's own act (a form, a confirmed
 * request, a link in a letter), by hand with a reason, or a step of a sequence.
 */
export type SubscriptionAct = 'import' | 'person' | 'by-hand' | 'sequence'

/**
 * The state after somebody asks for `wanted`; the present one where the way has no right to it.
 * Only the person, or somebody by hand with a reason, brings an unsubscribed person back: an
 * import never does, nor does a sequence.
 */
export function nextSubscription(
  present: SubscriptionState | null,
  wanted: SubscriptionState,
  way: SubscriptionAct,
): SubscriptionState | null {
  if (present === 'unsubscribed' && (way === 'import' || way === 'sequence')) return present
  if (present === 'subscribed' && wanted === 'pending') return present
  if (present === null && wanted === 'unsubscribed') return null
  return wanted
}
