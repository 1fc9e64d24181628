import type { RecipientState } from '../delivery'

/**
 * What is counted of those who get a mailing, once for everything that counts (see semantics.md, Results). `counts.ts`
 * says it of one recipient and of a mailing's totals, `sql.ts` in SQL; a property test holds them equal.
 */
export const statesOf = {
  /** Taken by the mail server, and not come back. Who complains has got it. */
  delivered: ['accepted', 'complained'],
  /** Refused for good: in the conversation, or afterwards. */
  bounced: ['bounced', 'failed'],
  complained: ['complained'],
  deferred: ['deferred'],
  /** There was an answer, whatever it was. */
  tried: ['accepted', 'complained', 'bounced', 'failed', 'deferred'],
  /** There was an answer that stays. */
  answered: ['accepted', 'complained', 'bounced', 'failed'],
  /** Nobody has answered yet, and somebody will. */
  unanswered: ['queued', 'claimed'],
  /** Something is still to come. */
  waiting: ['queued', 'claimed', 'deferred'],
} as const satisfies Record<string, readonly RecipientState[]>

/** Counted by state. */
export type StateCount = keyof typeof statesOf
/** Counted by what somebody did, once a person. A person's acts alone: machines are counted apart. */
export type ActCount = 'opened' | 'clicked' | 'left'
export type Count = StateCount | ActCount

/** When a recipient did what is counted by acts; null where they did not. */
export interface ActTimes {
  openedAt: number | null
  clickedAt: number | null
  leftAt: number | null
}

/** Whether a recipient in a state is counted so. */
export function isIn(state: string, count: StateCount): boolean {
  return (statesOf[count] as readonly string[]).includes(state)
}

/** Whether a recipient is counted so. */
export function isCounted(recipient: { state: string } & ActTimes, count: Count): boolean {
  switch (count) {
    case 'opened':
      return recipient.openedAt !== null
    case 'clicked':
      return recipient.clickedAt !== null
    case 'left':
      return recipient.leftAt !== null
    default:
      return isIn(recipient.state, count)
  }
}

/** How many of a mailing are counted so, from its totals by state. What is not known is none. */
export function totalOf(
  totals: Partial<Record<RecipientState, number | null>>,
  count: StateCount,
): number {
  return statesOf[count].reduce((sum, state) => sum + (totals[state] ?? 0), 0)
}

/** Everybody who is on a mailing's list of recipients, from its totals by state. */
export function recipientsOf(totals: Partial<Record<RecipientState, number | null>>): number {
  return (
    totalOf(totals, 'answered') +
    totalOf(totals, 'waiting') +
    (totals.uncertain ?? 0) +
    (totals.dropped ?? 0)
  )
}
