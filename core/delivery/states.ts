/**
 * Where a mailing stands with one person. Forward only, but for three turns that are said below.
 * - queued: on the recipient list, to be claimed when it is due; claimed: in conversation with the mail server;
 *   accepted: the server took it; deferred: the server asked to come again later
 * - uncertain: claimed, and no answer is known; sent again only when the user says so
 * - failed: refused for good; dropped: not sent, for a reason; bounced and complained: afterwards
 */
export const recipientStates = [
  'queued',
  'claimed',
  'deferred',
  'uncertain',
  'accepted',
  'failed',
  'dropped',
  'bounced',
  'complained',
] as const
export type RecipientState = (typeof recipientStates)[number]

/** States out of which something is still to come. */
export const openStates = ['queued', 'claimed', 'deferred'] as const

const moves: Record<RecipientState, readonly RecipientState[]> = {
  queued: ['claimed', 'dropped'],
  // Back to queued only when the conversation never began: no server, so certainly no copy.
  claimed: ['accepted', 'deferred', 'failed', 'uncertain', 'queued', 'dropped'],
  deferred: ['claimed', 'failed', 'dropped'],
  // By the user's word, or because the answer was on its way after all.
  uncertain: ['queued', 'accepted', 'deferred', 'failed', 'bounced', 'complained', 'dropped'],
  accepted: ['bounced', 'complained'],
  failed: [],
  dropped: [],
  bounced: [],
  complained: [],
}

/** Whether a recipient may go from one state to another. */
export function mayMove(from: RecipientState, to: RecipientState): boolean {
  return moves[from].includes(to)
}

/** Whether nothing more is to be done for a recipient in this state. */
export function isFinal(state: RecipientState): boolean {
  return !(openStates as readonly RecipientState[]).includes(state) && state !== 'uncertain'
}
