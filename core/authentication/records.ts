import { policies } from './dmarc'
import { readTagList } from './tag-list'

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

/** The three records a sending domain needs where it has none. */
export function recordsToPublish(of: SendingDomain): Record<'spf' | 'dkim' | 'dmarc', DnsRecord> {
  const { domain, ips, selector, publicKey } = of
  const txt = (name: string, value: string): DnsRecord => ({ name, type: 'TXT', value })
  return {
    spf: txt(domain, ['v=spf1', ...mechanisms(ips), '-all'].join(' ')),
    dkim: txt(`${selector}._domainkey.${domain}`, `v=DKIM1; k=rsa; p=${publicKey}`),
    dmarc: txt(`_dmarc.${domain}`, `v=DMARC1; p=none; rua=mailto:dmarc@${domain}`),
  }
}

const mechanisms = (ips: readonly string[]) =>
  ips.map((ip) => (ip.includes(':') ? `ip6:${ip}` : `ip4:${ip}`))

/**
 * One SPF record that says what those found say, without what can't be read, and lets our addresses send. They come first:
 * a provider that finds one of them asks no further, whatever the rest would have it ask for.
 */
export function mendSpf(records: readonly string[], ips: readonly string[]): string {
  const terms = records.flatMap((record) => record.trim().split(/\s+/).slice(1))
  const kept = [...new Set(terms)].filter((term) => isTerm(term) && !isEnd(term))
  const ours = mechanisms(ips).filter((one) => !kept.includes(one))
  const redirect = kept.find((term) => /^redirect=/i.test(term))
  const others = kept.filter((term) => !/^redirect=/i.test(term))
  // `+all` lets everybody send, `?all` says nothing; the strictest of the other ends stays.
  const ends = terms.filter((term) => /^[-~]all$/i.test(term)).map((term) => term.toLowerCase())
  const end = ends.includes('-all') ? '-all' : ends.length || !redirect ? '~all' : redirect
  return ['v=spf1', ...ours, ...others, end].join(' ')
}

const isEnd = (term: string) => /^[-~?+]?all$/i.test(term)
/** A mechanism with a value of the right shape, or a modifier (RFC 7208, 5 and 6). */
function isTerm(term: string): boolean {
  return (
    isEnd(term) ||
    /^[-~?+]?(include|exists):[^\s/:]+$/i.test(term) ||
    /^[-~?+]?(a|mx)(:[^\s/:]+)?(\/([1-2]?\d|3[0-2]))?(\/\/\d{1,3})?$/i.test(term) ||
    /^[-~?+]?ptr(:[^\s/:]+)?$/i.test(term) ||
    /^[-~?+]?ip4:(\d{1,3}\.){3}\d{1,3}(\/([1-2]?\d|3[0-2]))?$/i.test(term) ||
    /^[-~?+]?ip6:[0-9a-f:.]+(\/\d{1,3})?$/i.test(term) ||
    /^[a-z][a-z0-9_.-]*=\S+$/i.test(term)
  )
}

/** One DMARC record with the policy and the addresses of those found, where they name any that can be read. */
export function mendDmarc(records: readonly string[], domain: string): string {
  const found = records.map(
    (record) => readTagList(record.replace(/dmarc1/i, 'DMARC1')) ?? new Map<string, string>(),
  )
  const first = (tag: string) => found.map((tags) => tags.get(tag)).find((value) => value)
  const policy = policies.findLast((one) =>
    found.some((tags) => tags.get('p')?.toLowerCase() === one),
  )
  const kept = ['ruf', 'adkim', 'aspf'].flatMap((tag) => {
    const value = first(tag)
    return value ? [`${tag}=${value}`] : []
  })
  const rua = first('rua') ?? `mailto:dmarc@${domain}`
  return ['v=DMARC1', `p=${policy ?? 'none'}`, `rua=${rua}`, ...kept].join('; ')
}
