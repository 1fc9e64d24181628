import { Secret, TOTP } from 'otpauth'

/** A code lasts so long, s; one step before and after is taken too, since clocks differ (RFC 6238, 5.2). */
const PERIOD = 30
const WINDOW = 1

/** A secret for a second factor, as an authenticator takes it (base32), from 20 random bytes (RFC 4226, 4). */
export const totpSecret = (random: Uint8Array): string =>
  new Secret({ buffer: random.slice().buffer }).base32

/** What an authenticator scans: `otpauth://totp/…`. */
export const totpAddress = (secret: string, account: string): string =>
  of(secret, account).toString()

/**
 * The step of time whose code was given (RFC 6238), or null where it is none of those that hold now. A step that was used
 * is not taken again, nor one before it (5.2: one-time).
 */
export function totpStep(
  secret: string,
  code: string,
  now: number,
  lastUsed: number | null,
): number | null {
  if (!/^\d{6}$/.test(code)) return null
  const delta = of(secret, '').validate({ token: code, timestamp: now, window: WINDOW })
  if (delta === null) return null
  const step = Math.floor(now / 1_000 / PERIOD) + delta
  return lastUsed !== null && step <= lastUsed ? null : step
}

/** The code at a time; for tests and for nobody else. */
export const totpCode = (secret: string, now: number): string =>
  of(secret, '').generate({ timestamp: now })

const of = (secret: string, label: string) =>
  new TOTP({ issuer: 'Satchel', label: label || 'Satchel', secret, period: PERIOD })

/** Letters and digits that are not mistaken for each other. */
const alphabet = '23456789abcdefghjkmnpqrstuvwxyz'

/** Recovery codes from random bytes, ten for each: `abcd-efgh-jk`, each good for one sign-in without the second factor. */
export function recoveryCodes(random: Uint8Array): string[] {
  const codes: string[] = []
  for (let at = 0; at + 10 <= random.length; at += 10) {
    const letters = [...random.slice(at, at + 10)].map((byte) => alphabet[byte % alphabet.length])
    codes.push(
      [letters.slice(0, 4), letters.slice(4, 8), letters.slice(8)]
        .map((part) => part.join(''))
        .join('-'),
    )
  }
  return codes
}

/** A recovery code as it is kept and compared, however it was typed. */
export const plainRecoveryCode = (typed: string): string =>
  typed.toLowerCase().replace(/[^a-z0-9]/g, '')
