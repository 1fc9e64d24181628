/** Why an address can't be used, as a code; the words are in {@link addressProblems}. */
export type AddressProblem = Exclude<keyof typeof addressProblems, 'several'>

export const addressProblems = {
  empty: 'There is no address in this row.',
  'no-at': 'This is not an address: it has no @.',
  'many-at': 'This is not an address: it has more than one @.',
  'local-empty': 'There is nothing before the @.',
  'local-long': 'The part before the @ is longer than 64 characters.',
  'local-ascii': 'The part before the @ has letters that many mail servers refuse (not ASCII).',
  'local-form': 'The part before the @ has a space or a sign that cannot stand there.',
  domain: 'The part after the @ is not the name of a domain.',
  long: 'The address is longer than 254 characters.',
  several: 'There are several addresses in this cell. One row is one person.',
} as const

export type CheckedAddress =
  | { ok: true; address: string; normal: string; domain: string }
  | { ok: false; problem: AddressProblem }

const atom = /^[a-z0-9!#$%&'*+/=?^_`{|}~-]+(\.[a-z0-9!#$%&'*+/=?^_`{|}~-]+)*$/i
const plainDomain =
  /^(?=.{1,253}$)([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z][a-z0-9-]{0,61}[a-z0-9]$/

/**
 * Checks one address and brings it to its normal form: trimmed, Unicode NFC, the domain in
 * lower-case ASCII (IDNA), the local part in lower case. `address` keeps what was typed.
 * Limits of length: RFC 5321, 4.5.3.1.
 */
export function checkAddress(text: string): CheckedAddress {
  const address = text.normalize('NFC').trim()
  const fault = (problem: AddressProblem): CheckedAddress => ({ ok: false, problem })
  if (address === '') return fault('empty')
  const at = address.indexOf('@')
  if (at < 0) return fault('no-at')
  if (address.indexOf('@', at + 1) >= 0) return fault('many-at')
  const local = address.slice(0, at)
  if (local === '') return fault('local-empty')
  if (local.length > 64) return fault('local-long')
  if (!/^\p{ASCII}*$/u.test(local)) return fault('local-ascii')
  if (!atom.test(local)) return fault('local-form')
  const domain = asciiDomain(address.slice(at + 1))
  if (domain === null) return fault('domain')
  const normal = `${local.toLowerCase()}@${domain}`
  if (normal.length > 254) return fault('long')
  return { ok: true, address, normal, domain }
}

/** A domain in lower-case ASCII (IDNA, RFC 5891), or null where it is none. */
function asciiDomain(domain: string): string | null {
  const lower = domain.toLowerCase()
  if (plainDomain.test(lower)) return lower
  if (/[\s/\\:?#@%[\]<>^|]/.test(lower)) return null
  try {
    const ascii = new URL(`http://${lower}`).hostname
    return plainDomain.test(ascii) ? ascii : null
  } catch {
    return null
  }
}
