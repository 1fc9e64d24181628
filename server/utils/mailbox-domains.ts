import { domainCounts } from '~~/database/people'

/** Domains at which so many people have their mailbox are known: what is nearly one of them may be a slip of the hand. */
const KNOWN_FROM = 20

/** The domains that many of the account's people write from; counted seldom, since they hardly change. */
export const mailboxDomains = (): ReadonlySet<string> =>
  countedSeldom('mailbox domains', () => {
    const counts = domainCounts(satchel().db)
    return new Set([...counts].flatMap(([domain, many]) => (many >= KNOWN_FROM ? [domain] : [])))
  })
