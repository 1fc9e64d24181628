import type { RecipientState } from '../delivery'

/** One message of a mailing: to whom, where it stands, and what they did with it. Times are UTC ms; null: not so far. */
export interface Message {
  person_id: number
  /** As they are called; null: they were erased. */
  name: string | null
  round: number
  state: RecipientState
  /** When it came to stand so. */
  at: number
  /** What the mail server said last, or why it was not sent. */
  answer: string | null
  opened_at: number | null
  clicked_at: number | null
  replied_at: number | null
  left_at: number | null
}

/** Which of a mailing's messages are asked for. */
export interface MessagesAsked {
  /** Where they stand, as a state is called; null: anywhere. */
  state: string | null
  /** Part of a name or address of those they went to; null: to anybody. */
  to: string | null
  /** How many of the newest are passed over. */
  offset: number
}

/** So many at once. */
export const MESSAGES_SHOWN = 50
const LONGEST_SEARCH = 100
const MOST_PASSED_OVER = 10_000_000

/** Reads what is asked for from an address; what is odd is not asked. */
export function readMessagesAsked(query: Record<string, unknown>): MessagesAsked {
  const { state: given } = query
  const state = typeof given === 'string' && /^[a-z]{1,20}$/.test(given) ? given : null
  const { to: sought } = query
  const to = typeof sought === 'string' ? sought.trim().slice(0, LONGEST_SEARCH) || null : null
  const offset = Math.floor(Number(query.offset))
  return { state, to, offset: offset > 0 && offset <= MOST_PASSED_OVER ? offset : 0 }
}
