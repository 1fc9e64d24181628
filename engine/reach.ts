import { lookup as dnsLookup, type LookupAddress } from 'node:dns'
import { isIP, type LookupFunction } from 'node:net'
import { isPublicAddress } from '../core/network'

/** What was named for being asked is not asked: it lies in no public network, and nobody said that it may be. */
export class NotReached extends Error {
  constructor() {
    super('it is no address on the public internet')
  }
}

/** What may be asked beside the public internet, and who says where a name is. */
export interface Reach {
  /** Hosts, with or without a port: `127.0.0.1:4580`, `intranet.example`. */
  mayReach: readonly string[]
  /** All addresses of a name; the host's own resolver where there is none. */
  resolve?: (name: string) => Promise<LookupAddress[]>
}

const hostsResolver = (name: string): Promise<LookupAddress[]> =>
  new Promise((done, failed) =>
    dnsLookup(name, { all: true, verbatim: true }, (error, found) =>
      error ? failed(error) : done(found),
    ),
  )

const isNamed = (host: string, port: number, { mayReach }: Reach) =>
  mayReach.includes(host) || mayReach.includes(`${host}:${port}`)

/**
 * The addresses of a host that may be connected to: those that are public, or all where the host is named. Throws
 * {@link NotReached} where there is none. Whoever connects takes these and asks no name server again, so that a name
 * that answers otherwise the next time (DNS rebinding) leads nowhere else.
 */
export async function addressesToReach(
  host: string,
  port: number,
  reach: Reach,
): Promise<LookupAddress[]> {
  const bare = host.replace(/^\[|\]$/g, '').toLowerCase()
  const family = isIP(bare)
  const found = family ? [{ address: bare, family }] : await (reach.resolve ?? hostsResolver)(bare)
  const may = isNamed(bare, port, reach)
    ? found
    : found.filter(({ address }) => isPublicAddress(address))
  if (may.length === 0) throw new NotReached()
  return may
}

/** For `net.connect`: it gets the addresses that were checked, whatever name it asks about. */
export const lookupChecked =
  (checked: readonly LookupAddress[]): LookupFunction =>
  (_name, options, tell) =>
    options.all ? tell(null, [...checked]) : tell(null, checked[0]!.address, checked[0]!.family)
