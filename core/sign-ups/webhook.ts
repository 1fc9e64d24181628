import { createHmac } from 'node:crypto'
import { DAY, HOUR, MINUTE } from '../time'

/** So long a program that does not take a call is asked again. */
export const TRIED_FOR = DAY

/**
 * The headers by which a program knows that a call is ours, and new: the time in seconds, and the HMAC-SHA256 (RFC 2104)
 * over that time, a full stop and the body, in hex, by the key that it was given.
 */
export function signedHeaders(key: string, body: string, at: number): Record<string, string> {
  const seconds = String(Math.floor(at / 1_000))
  const mac = createHmac('sha256', key).update(`${seconds}.${body}`).digest('hex')
  return { 'Satchel-Time': seconds, 'Satchel-Signature': `sha256=${mac}` }
}

/** When a call that failed so many times is tried again: after a minute, then four times as long, six hours at most; null: no more. */
export function nextTry(tries: number, firstAt: number, now: number): number | null {
  const next = now + Math.min(6 * HOUR, MINUTE * 4 ** (tries - 1))
  return next - firstAt > TRIED_FOR ? null : next
}
