import { checkAddress, type AddressProblem, type CheckedAddress } from './address'

/** An address out of a cell, and the name that stood beside it. */
export type AddressInCell =
  (CheckedAddress & { ok: true; name: string }) | { ok: false; problem: AddressProblem | 'several' }

/** Spaces that don't break, and characters without a width: they come along from web pages and documents. */
const unseen = /[\u00A0\u2007\u202F\uFEFF]/g
const noWidth = /[\u200B-\u200D\u2060\u00AD]/g

/**
 * The address in a cell as people keep them: bare, with `mailto:`, in angle brackets with or without a name before it
 * (RFC 5322, 3.4), with a full stop or comma behind it. Several different ones are no address: nobody can tell whose it is.
 */
export function addressInCell(cell: string): AddressInCell {
  const plain = checkAddress(cell)
  if (plain.ok) return { ...plain, name: '' }
  const text = cell.replace(noWidth, '').replace(unseen, ' ').trim()
  const inBrackets = /^([^<>]*)<([^<>]*)>[\s,;.]*$/.exec(text)
  const bare = (inBrackets?.[2] ?? text)
    .trim()
    .replace(/^mailto:/i, '')
    .replace(/\?(?:subject|body|cc|bcc)=.*$/is, '')
    .replace(/^["'“”„‚‘’]+|["'“”‘’]+$/g, '')
    .replace(/[\s,;.]+$/, '')
  const checked = checkAddress(bare)
  if (checked.ok) return { ...checked, name: nameOf(inBrackets?.[1] ?? '') }
  return addressesIn(text) > 1 ? { ok: false, problem: 'several' } : checked
}

const nameOf = (before: string) =>
  before
    .replace(/["“”]/g, '')
    .replace(/[\s,;]+$/, '')
    .trim()

/** How many different addresses stand in a text. */
function addressesIn(text: string): number {
  const found = text
    .split(/[\s,;|/<>]+/)
    .map((part) => checkAddress(part.replace(/^mailto:/i, '')))
    .flatMap((part) => (part.ok ? [part.normal] : []))
  return new Set(found).size
}
