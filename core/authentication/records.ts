/** What is known of how a domain sends: from which addresses, and signed with which key. */
export interface SendingDomain {
  domain: string
  /** Addresses the mail server sends from; none where they are not known. */
  ips: readonly string[]
  selector: string
  /** The public part of the key, base64 of its SubjectPublicKeyInfo, as it stands in `p=`. */
  publicKey: string
}

/** A record to publish with whoever keeps the domain's names. */
export interface DnsRecord {
  name: string
  type: 'TXT'
  value: string
}

/** The three records a sending domain needs. A present SPF record is added to, since there may be only one. */
export function recordsToPublish(
  { domain, ips, selector, publicKey }: SendingDomain,
  presentSpf: string | null,
): Record<'spf' | 'dkim' | 'dmarc', DnsRecord> {
  const txt = (name: string, value: string): DnsRecord => ({ name, type: 'TXT', value })
  return {
    spf: txt(domain, spfWith(presentSpf, ips)),
    dkim: txt(`${selector}._domainkey.${domain}`, `v=DKIM1; k=rsa; p=${publicKey}`),
    dmarc: txt(`_dmarc.${domain}`, `v=DMARC1; p=none; rua=mailto:dmarc@${domain}`),
  }
}

function spfWith(present: string | null, ips: readonly string[]): string {
  const ours = ips.map((ip) => (ip.includes(':') ? `ip6:${ip}` : `ip4:${ip}`))
  if (!present) return ['v=spf1', ...ours, '-all'].join(' ')
  const terms = present.trim().split(/\s+/)
  const missing = ours.filter((one) => !terms.includes(one))
  const end = terms.findIndex((term) => /^[-~?+]?all$|^redirect=/i.test(term))
  const at = end < 0 ? terms.length : end
  return [...terms.slice(0, at), ...missing, ...terms.slice(at)].join(' ')
}
