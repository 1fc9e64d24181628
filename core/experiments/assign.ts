/** What a slot is drawn for; each is independent of the others. */
export type SlotUse = 'holdout' | 'test' | 'variant' | 'way'

const salts: Record<SlotUse, number> = {
  holdout: 0x9e3779b1,
  test: 0x85ebca77,
  variant: 0xc2b2ae3d,
  way: 0x27d4eb2f,
}

/**
 * Where a person falls for a mailing, from 0 up to but not including 1: a hash of the two, so that it is always the
 * same, is evenly spread and does not hang on the order in which people come.
 */
export function slotOf(use: SlotUse, mailingId: number, personId: number): number {
  // Ids may be wider than 32 bits; both halves count.
  const high = Math.floor(personId / 2 ** 32)
  return mix(mix(mix(mailingId ^ salts[use]) ^ high) ^ (personId >>> 0)) / 2 ** 32
}

/** Which of so many variants a person gets. */
export function variantOf(mailingId: number, personId: number, variants: number): number {
  return Math.floor(slotOf('variant', mailingId, personId) * variants)
}

/** The finishing step of MurmurHash3 (Appleby, public domain): every bit in changes about half of those out. */
function mix(bits: number): number {
  let h = bits >>> 0
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) >>> 0
}
