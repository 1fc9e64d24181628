import { MINUTE, HOUR } from '../time'

/**
 * Why a sending is not taken at its word. Those of `look` can be let through by hand; the others come to nothing. What is
 * doubtful about the domain is found when a mail is to go there, since name servers are asked.
 */
export const doubts = {
  trap: { words: 'Hidden field filled', look: false },
  suppressed: { words: 'Suppressed: mail came back or was a complaint', look: false },
  fast: { words: 'Sent in faster than one can read', look: true },
  token: { words: 'Not from a form that we drew', look: true },
  thrown: { words: 'Thrown-away address', look: true },
  nowhere: { words: 'A domain that takes no mail', look: true },
  address: { words: 'The same address many times', look: true },
  unproven: { words: 'Many at once without a browser’s work', look: true },
  network: { words: 'Same network, many addresses', look: true },
  form: { words: 'Many at once', look: true },
} as const
export type Doubt = keyof typeof doubts

/** What is known of a sending besides what was entered. */
export interface Circumstances {
  /** Whether the field that nobody sees was filled. */
  trapped: boolean
  /** For how long it had been drawn for them, ms, as its own token says; null where that is none of ours. */
  drawnFor: number | null
  suppressed: boolean
  /** Their browser did a little work for it, which costs whoever sends many. */
  worked: boolean
  /**
   * How many came before: for this address in a day, of those that nobody doubted; from this network and to this form in ten
   * minutes with work; and to this form without. Programs that do none can send what they like: no person is counted
   * together with them.
   */
  before: { address: number; network: number; form: number; unproven: number }
}

/** Nobody reads and fills in a form in less. */
const AT_LEAST = 1_500
/** How long what was drawn can be sent in. */
export const DRAWN_FOR = 24 * HOUR
export const WINDOWS = { address: 24 * HOUR, network: 10 * MINUTE, form: 10 * MINUTE }
/** Without a script no work is done; few people have none, and most programs that send many. */
export const MOST = { address: 3, network: 25, form: 600, unproven: 5 }
/** More than these from one network within its time are not even kept. */
export const MOST_KEPT = 200

/** The first reason to doubt a sending; null where there is none. */
export function doubtOf(of: Circumstances): Doubt | null {
  if (of.trapped) return 'trap'
  if (of.suppressed) return 'suppressed'
  if (of.drawnFor === null || of.drawnFor < 0 || of.drawnFor > DRAWN_FOR) return 'token'
  if (of.drawnFor < AT_LEAST) return 'fast'
  if (of.before.address >= MOST.address) return 'address'
  if (!of.worked && of.before.unproven >= MOST.unproven) return 'unproven'
  if (of.before.network >= MOST.network) return 'network'
  if (of.before.form >= MOST.form) return 'form'
  return null
}
