import { totalOf } from '../../core/counting'
import { liftOf, type Beside } from '../../core/experiments'
import type { Database } from '../../database'
import type { Mailing } from '../../database/mailings'
import { earlierSelf } from '../../database/results'

/**
 * Compares two mailings at the same age, that of the younger. Where one is a sequence's mail, which begins anew with
 * everybody, both are counted in all. Null where one of them never began.
 */
export function besideOf(db: Database, mine: Mailing, other: Mailing, now: number): Beside | null {
  const began = [mine, other].map((one) => (one.sequence_id === null ? one.started_at : null))
  const age = began.includes(null) ? null : now - Math.max(...began.map(Number))
  const [one, two] = [earlierSelf(db, mine.id, age), earlierSelf(db, other.id, age)]
  if (!one || !two) return null
  const rates = (
    [
      ['Opened', 'opened', 'delivered'],
      ['Clicked', 'clicked', 'delivered'],
      ['Unsubscribed', 'left_list', 'delivered'],
      ['Bounced, refused', 'bounced', 'answered'],
    ] as const
  ).map(([name, key, over]) => {
    const rate = (of: typeof one) => ({
      hits: Math.round(key === 'bounced' ? totalOf(of, 'bounced') : of[key]),
      of: totalOf(of, over),
    })
    return { name, ...liftOf(rate(one), rate(two)) }
  })
  return { age, rates }
}
