/**
 * Shares above which mailbox providers think ill of a sender (see semantics.md, Standing): bounced, of those who were
 * answered; complained, of those delivered, where one is cautious and where one stops; deferred, of those tried.
 */
export const limits = {
  bounced: 0.02,
  complained: 0.001,
  complainedStop: 0.003,
  deferred: 0.1,
} as const
