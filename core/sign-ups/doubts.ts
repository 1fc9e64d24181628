import { MINUTE, HOUR } from '../time'

/** Why a sending is not taken at its word. Those of `look` can be let through by hand; the others come to nothing. */
export const doubts = {
  trap: { words: 'Hidden field filled', look: false },
  suppressed: { words: 'Suppressed: mail came back or was a complaint', look: false },
  fast: { words: 'Sent in faster than one can read', look: true },
  token: { words: 'Not from a form that we drew', look: true },
  thrown: { words: 'Thrown-away address', look: true },
  address: { words: 'The same address many times', look: true },
  network: { words: 'Same network, many addresses', look: true },
  form: { words: 'Many at once', look: true },
} as const
export type Doubt = keyof typeof doubts

/** What is known of a sending besides what was entered. */
export interface Circumstances {
  /** Whether the field that nobody sees was filled. */
  trapped: boolean
  /** When the form was drawn for them, as its own token says; null where that is none of ours. */
  drawnAt: number | null
  now: number
  thrownAway: boolean
  suppressed: boolean
  /** How many came before: for this address in a day, from this network and to this form in ten minutes. */
  before: { address: number; network: number; form: number }
}

/** Nobody reads and fills in a form in less. */
const AT_LEAST = 1_500
/** How long what was drawn can be sent in. */
export const DRAWN_FOR = 24 * HOUR
export const WINDOWS = { address: 24 * HOUR, network: 10 * MINUTE, form: 10 * MINUTE }
export const MOST = { address: 3, network: 8, form: 300 }

/** The first reason to doubt a sending; null where there is none. */
export function doubtOf(of: Circumstances): Doubt | null {
  if (of.trapped) return 'trap'
  if (of.suppressed) return 'suppressed'
  if (of.drawnAt === null || of.drawnAt > of.now + MINUTE) return 'token'
  if (of.now - of.drawnAt < AT_LEAST) return 'fast'
  if (of.thrownAway) return 'thrown'
  if (of.before.address >= MOST.address) return 'address'
  if (of.before.network >= MOST.network) return 'network'
  if (of.before.form >= MOST.form) return 'form'
  return null
}
