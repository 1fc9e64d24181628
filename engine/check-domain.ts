import { lookup, Resolver } from 'node:dns/promises'
import { checkDomain, type Resolve } from '../core/authentication'
import { domainsToCheck, saveDomainCheck, signingKey } from '../database/account'
import type { EngineSettings, Work } from './engine'

/** Asks name servers about the sender's domain where that is wanted. */
export const checkDomains: Work = async ({ db, clock, settings }) => {
  const domains = domainsToCheck(db)
  for (const domain of domains) {
    const of = { domain, ips: await sendingAddresses(settings), ...signingKey(db) }
    saveDomainCheck(db, await checkDomain(of, resolverFor(settings.nameServer)), clock())
  }
  return domains.length > 0
}

/** From which addresses mail goes out: as it is set, or those of the mail server's name. */
export async function sendingAddresses({
  sendsFrom,
  smtpUrl,
}: Pick<EngineSettings, 'sendsFrom' | 'smtpUrl'>): Promise<string[]> {
  if (sendsFrom.length || smtpUrl === null) return [...sendsFrom]
  try {
    const found = await lookup(new URL(smtpUrl).hostname, { all: true })
    return found.map(({ address }) => address)
  } catch {
    return []
  }
}

function resolverFor(nameServer: string | null): Resolve {
  const resolver = new Resolver({ timeout: 2_000, tries: 2 })
  if (nameServer) resolver.setServers([nameServer])
  return (name, type) => resolver.resolve(name, type)
}
