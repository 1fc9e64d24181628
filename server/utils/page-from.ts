/**
 * The page something stands on, as its address says, without what follows its path: that may say who somebody is. Of our own
 * pages the path alone; null where it is no address.
 */
export function pageFrom(address: string | null | undefined): string | null {
  if (!address) return null
  if (/^\/s\/[\w-]{1,40}$/.test(address)) return address
  try {
    const { protocol, origin, pathname } = new URL(address)
    if (protocol !== 'https:' && protocol !== 'http:') return null
    return `${origin === new URL(satchel().url).origin ? '' : origin}${pathname}`.slice(0, 300)
  } catch {
    return null
  }
}
