import type { StepKind } from './kind'

/** A mailing of the sequence's own, whose letter goes out to everybody who comes by. */
export interface MailStep {
  kind: 'mail'
  mailingId: number
  next: string | null
}

/** Who paused their mail stays before it until the pause is over. */
export const mail: StepKind<MailStep> = {
  name: 'Mail',
  read: ({ mailingId }) =>
    Number.isSafeInteger(mailingId) && (mailingId as number) > 0
      ? { kind: 'mail', mailingId: mailingId as number }
      : null,
  carryOut: ({ mailingId }, _id, { pausedUntil }, now) =>
    pausedUntil !== null && pausedUntil > now
      ? { stay: pausedUntil }
      : { effects: [{ is: 'mail', mailingId }], way: 0 },
}
