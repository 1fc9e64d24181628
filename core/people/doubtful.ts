const roles = new Set([
  'abuse',
  'accounts',
  'admin',
  'billing',
  'contact',
  'enquiries',
  'hello',
  'help',
  'hostmaster',
  'info',
  'jobs',
  'mail',
  'marketing',
  'noreply',
  'no-reply',
  'office',
  'postmaster',
  'press',
  'privacy',
  'sales',
  'security',
  'service',
  'support',
  'team',
  'webmaster',
])

/**
 * What is doubtful about an address that is otherwise in order: a domain that looks like a slip of
 * the hand for one of `knownDomains`, or a role instead of a person.
 */
export function addressCautions(normal: string, knownDomains: ReadonlySet<string>): string[] {
  const [local, domain] = normal.split('@') as [string, string]
  const cautions: string[] = []
  const meant = nearestDomain(domain, knownDomains)
  if (meant) cautions.push(`Is ${domain} a slip for ${meant}?`)
  if (roles.has(local)) cautions.push(`${local}@ is a role, not a person.`)
  return cautions
}

/** The known domain that is one slip (or two in a long name) away from `domain`; null where there is none. */
export function nearestDomain(domain: string, known: ReadonlySet<string>): string | null {
  if (known.has(domain)) return null
  let best: string | null = null
  let least = domain.length > 12 ? 3 : 2
  for (const candidate of known) {
    if (Math.abs(candidate.length - domain.length) >= least) continue
    const distance = slips(domain, candidate, least)
    if (distance < least) [best, least] = [candidate, distance]
  }
  return best
}

/** Damerau–Levenshtein distance (optimal string alignment), given up at `limit`. */
export function slips(a: string, b: string, limit: number): number {
  let before: number[] = []
  let above = Array.from({ length: b.length + 1 }, (_, j) => j)
  for (let i = 1; i <= a.length; i++) {
    const row = [i]
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1
      let cost = Math.min(above[j]! + 1, row[j - 1]! + 1, above[j - 1]! + same)
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, before[j - 2]! + 1)
      row.push(cost)
    }
    if (Math.min(...row) >= limit) return limit
    ;[before, above] = [above, row]
  }
  return above[b.length]!
}
