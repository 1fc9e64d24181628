import { HOUR, MINUTE } from '../time'

/*
 * How guessing passwords is slowed without anybody being locked out for others' mistakes: failures count for the one who
 * made them. That is a device that has signed in to this address before (it holds a cookie that says so), or else the
 * network for this address, and the network for all addresses.
 */

/** Failures so far, and when the last was (ms). */
export interface Failures {
  count: number
  last: number
}

/** After so many failures each further one doubles the wait. */
export const FREE = { device: 5, address: 5, network: 25 } as const

/** The longest wait; and failures older than this are forgotten, ms. */
const LONGEST_WAIT = 15 * MINUTE
const FORGOTTEN = HOUR

/** How long somebody with these failures still has to wait, ms; 0 for not at all. */
export function waitAfter(failures: Failures | undefined, free: number, now: number): number {
  if (!failures || failures.count < free || now - failures.last >= FORGOTTEN) return 0
  const wait = Math.min(LONGEST_WAIT, 1_000 * 2 ** Math.min(30, failures.count - free + 1))
  return Math.max(0, failures.last + wait - now)
}

/** With one failure more. */
export function failedAgain(failures: Failures | undefined, now: number): Failures {
  const before = failures && now - failures.last < FORGOTTEN ? failures.count : 0
  return { count: before + 1, last: now }
}

/** What failures are counted for, each with how many are free. */
export function countedFor(who: {
  address: string
  network: string
  device: string | null
}): { key: string; free: number }[] {
  return who.device
    ? [{ key: `device ${who.device} ${who.address}`, free: FREE.device }]
    : [
        { key: `address ${who.network} ${who.address}`, free: FREE.address },
        { key: `network ${who.network}`, free: FREE.network },
      ]
}
