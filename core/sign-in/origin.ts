/** What a browser says of where a request comes from, and where it goes. */
export interface Comes {
  /** Fetch Metadata: `Sec-Fetch-Site`. */
  site: string | undefined
  /** RFC 6454. */
  origin: string | undefined
  host: string | undefined
  /** Where this Satchel is reached, as it was told. */
  url: string
}

/**
 * Whether a request that changes something comes from a page of our own. Browsers say that of every such request, and
 * programs that go by a session can; where nothing is said, it is not taken to be so.
 */
export function comesFromHere({ site, origin, host, url }: Comes): boolean {
  if (site !== undefined && site !== 'same-origin') return false
  if (origin === undefined) return site === 'same-origin'
  try {
    const { host: from, origin: whole } = new URL(origin)
    return whole === new URL(url).origin || from === host
  } catch {
    return false
  }
}
