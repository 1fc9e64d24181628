/** What somebody reads on, as far as their mail program says. */
export type Device = 'phone' | 'tablet' | 'computer' | 'unknown'

/** The class of device of a user agent; many programs say nothing of theirs. */
export function deviceOf(agent: string): Device {
  if (/tablet|ipad/i.test(agent)) return 'tablet'
  if (/phone|mobile|android/i.test(agent)) return 'phone'
  return /windows|macintosh|x11|linux/i.test(agent) ? 'computer' : 'unknown'
}
