import ipaddr from 'ipaddr.js'

/** The network an address is in: /24 of IPv4, /64 of IPv6 (RFC 4291, 2.5.4), IPv4 in IPv6 as IPv4. */
export function networkOf(address: string): string {
  if (!ipaddr.isValid(address)) return 'unknown'
  const of = ipaddr.process(address)
  const bytes = of.toByteArray()
  return bytes.slice(0, of.kind() === 'ipv4' ? 3 : 8).join('.')
}
