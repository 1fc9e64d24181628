import { DAY } from '../time'

/**
 * Where a sending stands. Kept away: nothing comes of it. Kept for a look: nothing is mailed before somebody lets it
 * through. Pending: the confirming letter is on its way or has come. On the list already: what they asked for, they have.
 */
export const sendingStates = {
  'kept-away': 'Kept away',
  'for-a-look': 'Kept for a look',
  pending: 'Pending',
  confirmed: 'Confirmed',
  lapsed: 'Lapsed',
  already: 'On the list already',
  dropped: 'Dropped',
} as const
export type SendingState = keyof typeof sendingStates

/** What is not confirmed within this lapses; one reminder goes out before; what is kept for a look is dropped. */
export const CONFIRM_WITHIN = 7 * DAY
export const REMIND_AFTER = 2 * DAY
export const LOOK_WITHIN = 14 * DAY

/** What can happen to a sending. */
export type SendingEvent = 'confirm' | 'lapse' | 'doubt' | 'let-through' | 'drop'

const moves: Record<SendingEvent, Partial<Record<SendingState, SendingState>>> = {
  confirm: { pending: 'confirmed' },
  lapse: { pending: 'lapsed', 'for-a-look': 'dropped' },
  doubt: { pending: 'for-a-look' },
  'let-through': { 'for-a-look': 'pending' },
  drop: { 'for-a-look': 'dropped' },
}

/** The state after something happened; null where it can't happen in this one. */
export const sendingAfter = (state: SendingState, event: SendingEvent): SendingState | null =>
  moves[event][state] ?? null
