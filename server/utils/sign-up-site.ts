import type { H3Event } from 'h3'
import type { SignUpForm } from '~~/core/sign-ups'

/**
 * Whether a script on another site asks, and may: the browser says from which site (Fetch, 3.2), and a form stands only on
 * those that are named for it. For trying, also on this machine.
 */
export function siteAsking(event: H3Event): string | null {
  const origin = getHeader(event, 'origin')
  return origin && /^https?:\/\/[^\s]+$/.test(origin) ? origin.slice(0, 300) : null
}

export function mayStandOn({ sites, kind }: SignUpForm, origin: string): boolean {
  if (kind === 'hosted') return false
  return sites.includes(origin) || /^http:\/\/(localhost|127\.0\.0\.1)(:\d+)?$/.test(origin)
}

/** Lets the page that asks read the answer; it never brings cookies along. */
export function readableOn(event: H3Event, origin: string) {
  setResponseHeaders(event, {
    'Access-Control-Allow-Origin': origin,
    Vary: 'Origin, Accept-Language',
    'Cross-Origin-Resource-Policy': 'cross-origin',
  })
}
