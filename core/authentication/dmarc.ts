import { getDomain } from 'tldts'
import { textsOf, type Resolve } from './names'
import { readTagList } from './tag-list'

export type Policy = 'none' | 'quarantine' | 'reject'
export const policies: readonly Policy[] = ['none', 'quarantine', 'reject']

/** What a provider finds for mail from a domain. */
export interface DmarcPolicy {
  result: 'found' | 'none' | 'temperror'
  /** What is asked for mail of this domain that is not its own; null where none is found. */
  policy: Policy | null
  /** Of what share of such mail it is asked, %. */
  percent: number
  /** The name whose record counts: the domain's, or its organisation's. */
  at: string
  /** The records that begin as one should, at that name. */
  records: string[]
  /** Where there are texts that were to be a record and are none: why. */
  fault: string | null
}

/**
 * Finds the policy for mail from a domain (RFC 7489, 6.6.3): that of the domain, else of its organisation, whose `sp` then
 * counts before `p`. Mail of ours is of the very domain it is from, so that it is aligned, strict or not.
 */
export async function findDmarc(domain: string, resolve: Resolve): Promise<DmarcPolicy> {
  const organisation = getDomain(domain) ?? domain
  const none = { policy: null, percent: 100, at: domain, records: [], fault: null }
  let fault: string | null = null
  for (const at of new Set([domain, organisation])) {
    const texts = await textsOf(resolve, `_dmarc.${at}`)
    if (texts === null) return { ...none, result: 'temperror' }
    const records = texts.filter((text) => /^\s*v\s*=\s*DMARC1\s*(;|$)/.test(text))
    if (records.length === 1) return readDmarc(records[0]!, domain, at)
    // Two are as good as none, and end the search.
    if (records.length > 1)
      return {
        ...none,
        result: 'none',
        at,
        records,
        fault: 'There is more than one DMARC record, so providers take none.',
      }
    fault ??= texts.some((text) => /dmarc1/i.test(text))
      ? 'A record must begin with v=DMARC1, in capitals, so providers take none.'
      : null
  }
  return { ...none, result: 'none', fault }
}

function readDmarc(record: string, domain: string, at: string): DmarcPolicy {
  const tags = readTagList(record)
  const base = { percent: percentOf(tags?.get('pct')), at, records: [record] }
  const read = (tag: string) => policies.find((one) => one === tags?.get(tag)?.toLowerCase())
  const [own, below] = [read('p'), read('sp')]
  const isGood = own !== undefined && (!tags!.has('sp') || below !== undefined)
  if (isGood)
    return { ...base, result: 'found', policy: at === domain ? own : (below ?? own), fault: null }
  const fault =
    tags && !tags.has('p')
      ? 'The record names no policy (p=).'
      : 'The record names a policy that there is not.'
  // With somebody to report to it counts as p=none, else not at all.
  const reports = /(^|,)\s*mailto:[^\s@,]+@[^\s@,]+/i.test(tags?.get('rua') ?? '')
  return reports
    ? {
        ...base,
        result: 'found',
        policy: 'none',
        fault: `${fault.slice(0, -1)}, so providers only watch.`,
      }
    : {
        ...base,
        result: 'none',
        policy: null,
        fault: `${fault.slice(0, -1)}, so providers take none.`,
      }
}

/** What can't be read counts as everything. */
function percentOf(text: string | undefined): number {
  return text !== undefined && /^\d{1,3}$/.test(text) && Number(text) <= 100 ? Number(text) : 100
}
