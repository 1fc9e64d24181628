import type { Mark, ProofFacts } from '../mark'

/** So large a share of the audience has its mailboxes where only a mailbox provider has so many. */
const PROVIDER = 0.02
/** As many are no provider's customers. */
const FEWEST = 20

/** What the header says of who writes: a name that looks like another address, an address at a mailbox provider. */
export function sender({ sender: of, audienceCount }: ProofFacts): Mark[] {
  if (!of) return []
  const marks: Mark[] = []
  const base = { check: 'sender', level: 'caution' as const, blockId: null }
  const inName = /[^\s@<>]+@[^\s@<>]+\.[^\s@<>]+/.exec(of.name)?.[0]
  if (inName && inName.toLowerCase() !== of.address.toLowerCase())
    marks.push({
      ...base,
      title: `The sender’s name is an address: ${inName}`,
      detail: `The letter comes from ${of.address}. Filters take an address in the name for a disguise.`,
    })
  const domain = of.address.slice(of.address.lastIndexOf('@') + 1)
  if (of.atSameDomain >= FEWEST && of.atSameDomain >= PROVIDER * audienceCount)
    marks.push({
      ...base,
      title: `${of.address} is at a mailbox provider`,
      detail: `${of.atSameDomain.toLocaleString('en-GB')} of ${audienceCount.toLocaleString('en-GB')} readers have their mailboxes at ${domain}, too. Providers refuse mail in their name that others send; send from a domain of your own.`,
    })
  return marks
}
