/** When and to whom a form shows itself on somebody's page; whatever is left out holds for everybody. */
export interface Placement {
  /** Where a pop-over stands: in the middle, in a corner, or as a bar at the edge. */
  position: 'middle' | 'corner' | 'bar'
  /** It shows itself after so many seconds, after so much of the page (per cent), or when the pointer leaves it. */
  afterSeconds: number | null
  afterShare: number | null
  onLeaving: boolean
  /** Also when somebody presses an element: a CSS selector; empty: none. */
  onPress: string
  /** Shown again to who closed it after so many days. */
  againAfterDays: number
  /** Paths on which it shows itself, and on which it does not; `*` stands for anything. None: everywhere. */
  only: string[]
  not: string[]
  devices: 'all' | 'phones' | 'computers'
  /** Only for who comes from these sites, or with such a `utm_source`; none: from anywhere. */
  from: string[]
}

export const usualPlacement: Placement = {
  ...{ position: 'corner', afterSeconds: 10, afterShare: 50, onLeaving: false, onPress: '' },
  ...{ againAfterDays: 30, only: [], not: [], devices: 'all', from: [] },
}

/** Who is on a page. */
export interface Visitor {
  path: string
  /** Of the window, px. */
  width: number
  /** The host of the page they came from, and the page's `utm_source` and `utm_medium`; empty where there is none. */
  referrer: string
  source: string
  medium: string
  /** When they closed this form, or joined by any of the account's; as their own browser remembers. */
  closedAt: number | null
  joined: boolean
  now: number
}

/** Narrower than this is a phone, px. */
const PHONE = 640
const DAY = 86_400_000

/**
 * Whether a pop-over may show itself to a visitor at all. Not to who joined, closed it lately, or came by a letter's link:
 * they are on a list already.
 */
export function mayShow(
  { againAfterDays, only, not, devices, from }: Placement,
  { path, width, referrer, source, medium, closedAt, joined, now }: Visitor,
): boolean {
  if (joined || medium.toLowerCase() === 'email') return false
  if (closedAt !== null && now - closedAt < againAfterDays * DAY) return false
  if (devices !== 'all' && width < PHONE !== (devices === 'phones')) return false
  if (only.length && !only.some((pattern) => fits(pattern, path))) return false
  if (not.some((pattern) => fits(pattern, path))) return false
  return from.length === 0 || from.some((one) => one === source || isOf(referrer, one))
}

/** Whether a path is of a pattern; `*` stands for any characters. */
export function fits(pattern: string, path: string): boolean {
  const parts = pattern.split('*')
  if (parts.length === 1) return pattern === path || `${pattern}/` === path
  let at = 0
  for (const [i, part] of parts.entries()) {
    const last = i === parts.length - 1
    const found =
      i === 0
        ? path.startsWith(part)
          ? 0
          : -1
        : last
          ? path.length - part.length
          : path.indexOf(part, at)
    if (found < at || (last && !path.endsWith(part))) return false
    at = found + part.length
  }
  return true
}

const isOf = (host: string, site: string) => host === site || host.endsWith(`.${site}`)
