/** A mailing that has somebody due. */
export interface Claimant {
  id: number
  /** Whose readers wait for it, because of something that they did: mail of sequences, letters to confirm. */
  goesFirst: boolean
  /** In which turn it last got something; lower is longer ago. */
  served: number
  /** How many it could claim now. */
  able: number
}

/**
 * How many of the free conversations each mailing gets in this turn. Whoever has waited longest comes first; of those
 * who waited alike, mail that answers what somebody did. What is left when everybody has one goes to that mail first.
 * So with k mailings due, each claims within k turns, whatever the others want.
 */
export function shareOut(claimants: readonly Claimant[], free: number): Map<number, number> {
  const shares = new Map<number, number>()
  const due = claimants.filter(({ able }) => able > 0)
  const inTurn = due.toSorted(
    (a, b) => a.served - b.served || Number(b.goesFirst) - Number(a.goesFirst) || a.id - b.id,
  )
  let left = Math.max(0, Math.floor(free))
  const give = (one: Claimant, many: number) => {
    const has = shares.get(one.id) ?? 0
    const gets = Math.min(many, one.able - has, left)
    if (gets > 0) shares.set(one.id, has + gets)
    left -= Math.max(0, gets)
  }
  for (const one of inTurn) give(one, 1)
  for (const one of inTurn) if (one.goesFirst) give(one, left)
  for (let open = inTurn; left > 0 && open.length > 0;) {
    const each = Math.max(1, Math.floor(left / open.length))
    for (const one of open) give(one, each)
    open = open.filter((one) => (shares.get(one.id) ?? 0) < one.able)
  }
  return shares
}
