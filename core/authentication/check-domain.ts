import { judgeKey } from './dkim-key'
import { findDmarc, type DmarcPolicy, type Policy } from './dmarc'
import { textsOf, withTexts, type Resolve } from './names'
import { mendDmarc, mendSpf, recordsToPublish, type DnsRecord, type SendingDomain } from './records'
import { evaluateSpf, letsEverybody, spfFault } from './spf'

export type Verdict = 'good' | 'missing' | 'bad' | 'unknown'

/** One of the three records, as a receiving provider sees it, with the one that should be there. */
export interface RecordCheck {
  verdict: Verdict
  /** What was found, in words. */
  words: string
  /** The record as it stands, or the records, a line each; null where there is none. */
  found: string | null
  /** What to publish instead; evaluated, so that it is known to be good. */
  publish: DnsRecord
}

export interface DomainCheck {
  domain: string
  spf: RecordCheck
  dkim: RecordCheck
  dmarc: RecordCheck & {
    /** What the domain asks providers to do with mail that is not its own. */
    policy: Policy | null
  }
}

/**
 * Evaluates the records of a sender's domain as a provider would for a message of ours: SPF (RFC 7208) for the address it
 * comes from, the DKIM key (RFC 6376) against the one we sign with, DMARC (RFC 7489) with alignment of both.
 */
export async function checkDomain(of: SendingDomain, resolve: Resolve): Promise<DomainCheck> {
  const [spf, dkim] = await Promise.all([checkSpf(of, resolve), checkKey(of, resolve)])
  const passes = spf.verdict === 'good' || dkim.verdict === 'good'
  return { domain: of.domain, spf, dkim, dmarc: await checkDmarc(of, passes, resolve) }
}

const nobodyAnswered = 'The name server did not answer.'

async function checkSpf(of: SendingDomain, resolve: Resolve): Promise<RecordCheck> {
  const { domain, ips } = of
  const texts = await textsOf(resolve, domain)
  const plain = recordsToPublish(of).spf
  if (texts === null)
    return { verdict: 'unknown', words: nobodyAnswered, found: null, publish: plain }
  const records = texts.filter((text) => /^v=spf1(\s|$)/i.test(text))
  const judged = await judgeSpf(of, resolve)
  const base = { ...judged, found: records.join('\n') || null }
  if (!records.length || judged.verdict !== 'bad') return { ...base, publish: plain }
  const mended = { ...plain, value: mendSpf(records, ips) }
  const after = await judgeSpf(of, withTexts(resolve, domain, [mended.value]))
  return { ...base, publish: after.verdict === 'good' ? mended : plain }
}

async function judgeSpf(
  { domain, ips }: SendingDomain,
  resolve: Resolve,
): Promise<Pick<RecordCheck, 'verdict' | 'words'>> {
  // Where from which address mail goes out is not known, the record itself is judged by any.
  for (const ip of ips.length ? ips : ['192.0.2.1']) {
    const { result, why } = await evaluateSpf(domain, ip, resolve)
    if (result === 'none')
      return { verdict: 'missing', words: 'Nothing says who may send for this domain.' }
    if (result === 'temperror') return { verdict: 'unknown', words: nobodyAnswered }
    if (result === 'permerror') return { verdict: 'bad', words: spfFault(why) }
    if (result !== 'pass' && ips.length)
      return {
        verdict: 'bad',
        words: `The record does not let ${ip} send for this domain (${result}).`,
      }
  }
  if (await letsEverybody(domain, resolve))
    return { verdict: 'bad', words: 'The record lets everybody send for this domain.' }
  return ips.length
    ? { verdict: 'good', words: `Lets ${ips.join(', ')} send for this domain.` }
    : {
        verdict: 'unknown',
        words: 'There is a record; from which address your mail server sends is not known.',
      }
}

async function checkKey(of: SendingDomain, resolve: Resolve): Promise<RecordCheck> {
  const publish = recordsToPublish(of).dkim
  const texts = await textsOf(resolve, publish.name)
  const base = { found: texts?.join('\n') || null, publish }
  if (texts === null) return { ...base, verdict: 'unknown', words: nobodyAnswered }
  if (texts.length === 0)
    return { ...base, verdict: 'missing', words: 'The key that signs your letters is not there.' }
  const { verifies, words } = judgeKey(texts, of.publicKey)
  return { ...base, verdict: verifies ? 'good' : 'bad', words }
}

async function checkDmarc(
  of: SendingDomain,
  passes: boolean,
  resolve: Resolve,
): Promise<DomainCheck['dmarc']> {
  const found = await findDmarc(of.domain, resolve)
  const plain = recordsToPublish(of).dmarc
  const own = (await textsOf(resolve, plain.name)) ?? []
  const texts = own.filter((text) => /dmarc1/i.test(text))
  const mended = { ...plain, value: mendDmarc(texts, of.domain) }
  const after = await findDmarc(of.domain, withTexts(resolve, plain.name, [mended.value]))
  const isMended = after.result === 'found' && after.fault === null
  return {
    found: (texts.length ? texts : found.records).join('\n') || null,
    publish: texts.length && isMended ? mended : plain,
    policy: found.policy,
    ...dmarcWords(found, of.domain, passes),
  }
}

function dmarcWords(
  { result, policy, percent, at, fault }: DmarcPolicy,
  domain: string,
  passes: boolean,
): Pick<RecordCheck, 'verdict' | 'words'> {
  if (result === 'temperror') return { verdict: 'unknown', words: nobodyAnswered }
  if (fault) return { verdict: 'bad', words: fault }
  if (policy === null)
    return {
      verdict: 'missing',
      words: 'Nothing says what is to become of mail that only pretends to be yours.',
    }
  const asks = { none: 'only watches', quarantine: 'sets aside', reject: 'refuses' }[policy]
  const how = [
    `p=${policy}`,
    ...(percent < 100 ? [`for ${percent}% of it`] : []),
    ...(at === domain ? [] : [`by the record of ${at}`]),
  ].join(', ')
  return passes
    ? {
        verdict: 'good',
        words: `Your mail passes; the policy ${asks} what does not (${how}).`,
      }
    : {
        verdict: 'bad',
        words: `Your own mail fails, and the policy ${asks} it (${how}). Mend SPF or DKIM.`,
      }
}
