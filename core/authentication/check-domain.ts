import { dmarc } from 'mailauth/lib/dmarc/index.js'
import { spf } from 'mailauth/lib/spf/index.js'
import { recordsToPublish, type DnsRecord, type SendingDomain } from './records'

/** Asks a name server, as `dns.promises.resolve` does: a `TXT` answer is a list of strings a record. */
export type Resolve = (name: string, type: string) => Promise<unknown>

export type Verdict = 'good' | 'missing' | 'bad' | 'unknown'

/** One of the three records, as a receiving provider sees it, with the one that should be there. */
export interface RecordCheck {
  verdict: Verdict
  /** What was found, in words. */
  words: string
  /** The record as it stands; null where there is none. */
  found: string | null
  publish: DnsRecord
}

export interface DomainCheck {
  domain: string
  spf: RecordCheck
  dkim: RecordCheck
  dmarc: RecordCheck & {
    /** What the domain asks providers to do with mail that is not its own. */
    policy: 'none' | 'quarantine' | 'reject' | null
  }
}

/**
 * Evaluates the records of a sender's domain as a provider would for a message of ours: SPF (RFC 7208) for the address it
 * comes from, the DKIM key (RFC 6376) against the one we sign with, DMARC (RFC 7489) with alignment of both.
 */
export async function checkDomain(of: SendingDomain, resolve: Resolve): Promise<DomainCheck> {
  const { domain } = of
  const texts = await Promise.all(
    [domain, `${of.selector}._domainkey.${domain}`, `_dmarc.${domain}`].map((name) =>
      textsOf(resolve, name),
    ),
  )
  const [spfFound, dkimFound, dmarcFound] = texts.map((found, i) =>
    found === null ? null : (found.find((text) => begins[i]!.test(text)) ?? ''),
  ) as [string | null, string | null, string | null]
  const publish = recordsToPublish(of, spfFound || null)
  const spfCheck = await judgeSpf(of, spfFound, publish.spf, resolve)
  const dkimCheck = judgeDkim(of, dkimFound, publish.dkim)
  return {
    domain,
    spf: spfCheck,
    dkim: dkimCheck,
    dmarc: await judgeDmarc(
      of,
      dmarcFound,
      publish.dmarc,
      spfCheck.verdict === 'good',
      dkimCheck.verdict === 'good',
      resolve,
    ),
  }
}

const begins = [/^v=spf1(\s|$)/i, /(^|;)\s*p=/i, /^v=DMARC1(\s|;|$)/i]
const nobodyAnswered = 'The name server did not answer.'

/** The texts of a name; null where no answer came, [] where there are none. */
async function textsOf(resolve: Resolve, name: string): Promise<string[] | null> {
  try {
    return ((await resolve(name, 'TXT')) as string[][]).map((parts) => parts.join(''))
  } catch (error) {
    const { code } = error as { code?: string }
    return code === 'ENOTFOUND' || code === 'ENODATA' ? [] : null
  }
}

async function judgeSpf(
  { domain, ips }: SendingDomain,
  found: string | null,
  publish: DnsRecord,
  resolve: Resolve,
): Promise<RecordCheck> {
  const base = { found: found || null, publish }
  if (found === null) return { ...base, verdict: 'unknown', words: nobodyAnswered }
  if (found === '')
    return { ...base, verdict: 'missing', words: 'Nothing says who may send for this domain.' }
  if (ips.length === 0)
    return {
      ...base,
      verdict: 'unknown',
      words: 'There is a record; from which address your mail server sends is not known.',
    }
  for (const ip of ips) {
    const { status } = await spf({
      sender: `bounce@${domain}`,
      ip,
      helo: domain,
      resolver: resolve as never,
    })
    if (status.result === 'temperror') return { ...base, verdict: 'unknown', words: nobodyAnswered }
    if (status.result !== 'pass')
      return {
        ...base,
        verdict: 'bad',
        words:
          status.result === 'permerror'
            ? 'The record can’t be evaluated.'
            : `The record does not let ${ip} send for this domain (${status.result}).`,
      }
  }
  return { ...base, verdict: 'good', words: `Lets ${ips.join(', ')} send for this domain.` }
}

function judgeDkim(
  { publicKey }: SendingDomain,
  found: string | null,
  publish: DnsRecord,
): RecordCheck {
  const base = { found: found || null, publish }
  if (found === null) return { ...base, verdict: 'unknown', words: nobodyAnswered }
  if (found === '')
    return { ...base, verdict: 'missing', words: 'The key that signs your letters is not there.' }
  const key = /(?:^|;)\s*p=([^;]*)/i.exec(found)?.[1]?.replace(/\s+/g, '') ?? ''
  if (key === '') return { ...base, verdict: 'bad', words: 'The key was revoked (p= is empty).' }
  return key === publicKey
    ? { ...base, verdict: 'good', words: 'The key that signs your letters is there.' }
    : { ...base, verdict: 'bad', words: 'Another key is there, so every signature fails.' }
}

async function judgeDmarc(
  { domain }: SendingDomain,
  found: string | null,
  publish: DnsRecord,
  spfPasses: boolean,
  dkimPasses: boolean,
  resolve: Resolve,
): Promise<DomainCheck['dmarc']> {
  const base = { found: found || null, publish, policy: null }
  if (found === null) return { ...base, verdict: 'unknown', words: nobodyAnswered }
  // Our return path and our signature are of the sender's own domain, so both are aligned wherever they pass.
  const judged = await dmarc({
    headerFrom: domain,
    spfDomains: spfPasses ? [{ domain }] : [],
    dkimDomains: dkimPasses ? [{ id: 'ours', domain }] : [],
    resolver: resolve as never,
  } as never)
  const status = judged ? judged.status.result : 'permerror'
  if (status === 'temperror') return { ...base, verdict: 'unknown', words: nobodyAnswered }
  if (status === 'none')
    return {
      ...base,
      verdict: 'missing',
      words: 'Nothing says what is to become of mail that only pretends to be yours.',
    }
  const policy = policyOf(judged ? judged.policy : undefined)
  if (policy === null || status === 'permerror')
    return { ...base, verdict: 'bad', words: 'The record can’t be evaluated.' }
  const asks = { none: 'only watches', quarantine: 'sets aside', reject: 'refuses' }[policy]
  return {
    ...base,
    policy,
    verdict: status === 'pass' ? 'good' : 'bad',
    words:
      status === 'pass'
        ? `Your mail passes; the policy ${asks} what does not (p=${policy}).`
        : `Your own mail fails, and the policy ${asks} it (p=${policy}). Mend SPF or DKIM.`,
  }
}

function policyOf(found: string | undefined): DomainCheck['dmarc']['policy'] {
  const known = ['none', 'quarantine', 'reject'] as const
  return known.find((one) => one === found?.toLowerCase()) ?? null
}
