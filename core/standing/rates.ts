import { limits } from '../counting'
import { wilson } from '../results'

/**
 * The rates by which a mailbox provider thinks of a sender, each beside its limit: bounces over all that were answered,
 * complaints over what was delivered. `over` where the limit is passed, `stop` where it is passed by so much that
 * nothing more should go there.
 */
export function standingRates(counts: { delivered: number; bounced: number; complained: number }) {
  const { delivered, bounced, complained } = counts
  const answered = delivered + bounced
  const bounces = wilson(bounced, answered)
  const complaints = wilson(complained, delivered)
  return {
    bounced: { n: bounced, of: answered, ...bounces, over: bounces.rate > limits.bounced },
    complained: {
      n: complained,
      of: delivered,
      ...complaints,
      over: complaints.rate > limits.complained,
      stop: complaints.rate > limits.complainedStop,
    },
  }
}
