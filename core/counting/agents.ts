/** What somebody reads on, as far as their mail program says. */
export type Device = (typeof devices)[number]
export const devices = ['phone', 'tablet', 'computer', 'unknown'] as const

/** The class of device of a user agent; many programs say nothing of theirs. */
export function deviceOf(agent: string): Device {
  if (/tablet|ipad/i.test(agent)) return 'tablet'
  if (/phone|mobile|android/i.test(agent)) return 'phone'
  return /windows|macintosh|x11|linux/i.test(agent) ? 'computer' : 'unknown'
}

/** In what somebody reads: a page of their provider in a browser, or a program of their own. */
export type Program = (typeof programs)[number]
export const programs = ['browser', 'program', 'unknown'] as const

/**
 * The class of mail program of a user agent. A browser names itself and its version behind the engine; a mail program
 * that shows letters by the engine of a browser leaves that out, or names itself. Fetchers that stand between say neither.
 */
export function programOf(agent: string): Program {
  const named = agent.replace(/^mozilla\/[\d.]+\s*(\([^)]*\)?)?/i, '').trim()
  if (named === '') return 'unknown'
  const products = named
    .replaceAll(/\([^)]*\)?/g, ' ')
    .split(/\s+/)
    .map((product) => product.split('/')[0]!.toLowerCase())
    .filter(Boolean)
  const own = products.filter((product) => !enginesOnly.has(product))
  if (own.length === 0) return products.includes('applewebkit') ? 'program' : 'unknown'
  return own.every((product) => browsers.has(product)) ? 'browser' : 'program'
}

const enginesOnly = new Set(['applewebkit', 'gecko', 'mobile', 'version'])
const browsers = new Set(['safari', 'chrome', 'crios', 'firefox', 'fxios', 'edg', 'edge', 'opr'])
