import { sql, type SqlBool } from 'kysely'
import { engagement, keennessOf, tierOf, tiers, type Tier } from '../../standing'
import { joined, type Truth } from '../values/sql'
import type { TokenReader } from '../values/token-reader'
import type { ConditionKind } from './kind'

/** In which tiers of engagement somebody is. */
export interface InTier {
  kind: 'tier'
  of: Tier[]
}

/** Keenness: `from` ≤ k < `to`. Without `from`, who never did anything is in it too. */
interface TierSpan {
  from: number | null
  to: number | null
}

export const tier: ConditionKind<InTier> = {
  read({ of }) {
    return Array.isArray(of) && of.length > 0 && of.every((one) => tiers.includes(one))
      ? { kind: 'tier', of: tiers.filter((one) => (of as Tier[]).includes(one)) }
      : null
  },
  ready: (of) => of,
  inFacts: () => true,
  sql: ({ of }, { now }) => joined(spansOf(of, now).map(spanSql), sql` or `, sql<SqlBool>`0`),
  predicate({ of }, { now }) {
    const spans = spansOf(of, now)
    return ({ keenness }) =>
      spans.some(
        ({ from, to }) =>
          (from === null || (keenness !== null && keenness >= from)) &&
          (to === null || keenness === null || keenness < to),
      )
  },
  fact: (_, { keenness }, { asked }) =>
    `${tierOf(keenness, asked.now)}, engagement ${engagement(keenness, asked.now).toFixed(2)}`,
  phrases: [{ begins: 'tier', read: parse }],
  write: ({ of }) => `tier is ${of.join(', ')}`,
  offers: () => [
    {
      words: 'Engagement tier',
      also: 'keen warm cool silent engaged quiet',
      of: { kind: 'tier', of: ['keen'] },
    },
  ],
}

/** The spans of keenness that some tiers cover at `now`. */
function spansOf(of: readonly Tier[], now: number): TierSpan[] {
  return of.map((one) => {
    const above = tiers[tiers.indexOf(one) + 1]
    return { from: keennessOf(one, now), to: above ? keennessOf(above, now) : null }
  })
}

// The plus keeps SQLite from the index on keenness: most rules keep many, and reading `facts` from end to end is faster.
function spanSql({ from, to }: TierSpan): Truth {
  const parts: Truth[] = []
  if (from !== null) parts.push(sql<SqlBool>`coalesce(+facts.keenness >= ${from}, 0)`)
  if (to !== null) parts.push(sql<SqlBool>`coalesce(+facts.keenness < ${to}, 1)`)
  return joined(parts, sql` and `, sql<SqlBool>`1`)
}

function parse(r: TokenReader): InTier {
  r.expect('is')
  const found: Tier[] = []
  do {
    const one = tiers.find((name) => r.is(name))
    if (!one) throw r.fault(`A tier is needed here: ${tiers.join(', ')}.`)
    found.push(one)
    r.next++
  } while (r.take(','))
  return { kind: 'tier', of: tiers.filter((one) => found.includes(one)) }
}
