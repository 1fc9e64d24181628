import ipaddr from 'ipaddr.js'

/** All that is given out to anybody on the internet in IPv6 (RFC 4291, 2.4). */
const GLOBAL_UNICAST = ipaddr.parseCIDR('2000::/3')

/**
 * Whether an address (IPv4 or IPv6, without brackets) is one on the public internet: none of the loopback, private,
 * link-local, shared, documentation, multicast or reserved ones (the registries of RFC 6890), nor one that stands for an
 * IPv4 address, whatever that is (mapped, compatible, translated, 6to4, Teredo).
 */
export function isPublicAddress(address: string): boolean {
  // A zone (RFC 4007) names an interface of this machine.
  if (address.includes('%') || !ipaddr.isValid(address)) return false
  const parsed = ipaddr.parse(address)
  if (parsed.range() !== 'unicast') return false
  return parsed.kind() === 'ipv4' || (parsed as ipaddr.IPv6).match(GLOBAL_UNICAST as never)
}
