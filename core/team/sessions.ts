import { DAY, HOUR } from '../time'

/** A session that nobody used for so long is over, ms. */
export const SESSION_IDLE = 30 * DAY

/** No session goes on for longer, however much it is used, ms. */
export const SESSION_LONGEST = 90 * DAY

/** For so long after the password was given nothing sensitive asks for it again, ms. */
export const CONFIRMED_FOR = HOUR

/** A link with which a password is set anew works for so long, ms. */
export const RESET_WORKS_FOR = HOUR

/** When a session is over by itself, by when it began and was last used (host's clock, ms). */
export function sessionEnds({ began, used }: { began: number; used: number }): number {
  return Math.min(used + SESSION_IDLE, began + SESSION_LONGEST)
}

/** What a browser says of itself, in a few words: `Firefox on Linux`. */
export function deviceOf(userAgent: string): string {
  const browser = named(userAgent, [
    [/\bEdg\w*\//, 'Edge'],
    [/\bOPR\//, 'Opera'],
    [/\bFirefox\/|\bFxiOS\//, 'Firefox'],
    [/Chrom(e|ium)\/|\bCriOS\//, 'Chrome'],
    [/\bSafari\//, 'Safari'],
  ])
  const system = named(userAgent, [
    [/\biPhone\b/, 'iPhone'],
    [/\biPad\b/, 'iPad'],
    [/\bAndroid\b/, 'Android'],
    [/\bWindows\b/, 'Windows'],
    [/\bMac OS X\b|\bMacintosh\b/, 'Mac'],
    [/\bCrOS\b/, 'ChromeOS'],
    [/\bLinux\b/, 'Linux'],
  ])
  if (!browser && !system) return 'Another program'
  return [browser ?? 'A browser', system && `on ${system}`].filter(Boolean).join(' ')
}

function named(text: string, names: readonly (readonly [RegExp, string])[]): string | null {
  return names.find(([pattern]) => pattern.test(text))?.[1] ?? null
}
