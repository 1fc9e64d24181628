import { recordsToPublish } from '../core/authentication'
import type { Database } from '../database'
import { senderDomain, signingKey } from '../database/account'

/** What the kite makers have published about their domain, for the practice world's name server. */
export function publishedZone(db: Database): Record<string, { TXT: string[] }> {
  const domain = senderDomain(db)!
  const { spf, dkim } = recordsToPublish({ domain, ips: ['127.0.0.1'], ...signingKey(db) })
  return {
    [spf.name]: { TXT: [spf.value] },
    [dkim.name]: { TXT: [dkim.value] },
    [`_dmarc.${domain}`]: { TXT: [`v=DMARC1; p=quarantine; rua=mailto:dmarc@${domain}`] },
  }
}
