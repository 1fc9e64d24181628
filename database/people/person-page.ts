import { isPaused, type OwnLimits } from '../../core/readers'
import { engagement, tierOf, withAct, type EngagedAct, type Keenness } from '../../core/standing'
import { DAY } from '../../core/time'
import { enrolmentsOf } from './in-sequences'
import { tasksOf } from './tasks'
import { all, one, q, type Database } from '../query'
import { ownChangesOf, ownLimitsOf } from '../readers'
import { repliesOf } from '../sending'

/** Orders, events, sequences, notes, tasks and sums of one person, for their page. */
export function personHistory(db: Database, id: number, now: number) {
  const facts = one(db, q.selectFrom('facts').selectAll().where('person_id', '=', id))!
  return {
    spent: facts.spent,
    tier: tierOf(facts.keenness, now),
    engagement: engagement(facts.keenness, now),
    orders: all(
      db,
      q
        .selectFrom('orders')
        .select(['id', 'number', 'at', 'money'])
        .where('person_id', '=', id)
        .orderBy('at', 'desc')
        .limit(50),
    ).map((order) => ({
      ...order,
      items: all(
        db,
        q
          .selectFrom('order_items')
          .innerJoin('products', 'products.id', 'order_items.product_id')
          .select(['products.name', 'quantity'])
          .where('order_id', '=', order.id)
          .orderBy('position'),
      ),
    })),
    events: all(
      db,
      q
        .selectFrom('events')
        .select(['name', 'at', 'props'])
        .where('person_id', '=', id)
        .orderBy('at', 'desc')
        .limit(50),
    ),
    sequences: enrolmentsOf(db, id),
    limits: limitsNow(db, id, now),
    ownChanges: ownChangesOf(db, id)
      .slice(0, 50)
      .map(({ at, detail, wording }) => ({ at, detail, wording })),
    replies: repliesOf(db, id).slice(0, 50),
    notes: all(
      db,
      q
        .selectFrom('notes')
        .select(['id', 'at', 'by_name', 'text'])
        .where('person_id', '=', id)
        .orderBy('at', 'desc'),
    ),
    tasks: tasksOf(db, id),
    acts: all(
      db,
      q
        .selectFrom('recipients')
        .select(['opened_at', 'clicked_at'])
        .where('person_id', '=', id)
        .where('opened_at', 'is not', null),
    ),
    keenness: engagementByMonth(db, id, now),
  }
}

/** Engagement at the end of each of the last twelve months of 30 days, from the raw acts. */
function engagementByMonth(db: Database, id: number, now: number): number[] {
  const mail = all(
    db,
    q
      .selectFrom('recipients')
      .select(['opened_at', 'clicked_at', 'replied_at'])
      .where('person_id', '=', id),
  )
  const orders = all(db, q.selectFrom('orders').select('at').where('person_id', '=', id))
  const acts: { act: EngagedAct; at: number | null }[] = [
    ...mail.map(({ opened_at }) => ({ act: 'open' as const, at: opened_at })),
    ...mail.map(({ clicked_at }) => ({ act: 'click' as const, at: clicked_at })),
    ...mail.map(({ replied_at }) => ({ act: 'reply' as const, at: replied_at })),
    ...orders.map(({ at }) => ({ act: 'order' as const, at })),
  ]
  return Array.from({ length: 12 }, (_, i) => {
    const end = now - (11 - i) * 30 * DAY
    let keenness: Keenness = null
    for (const { act, at } of acts)
      if (at !== null && at <= end) keenness = withAct(keenness, act, at)
    return engagement(keenness, end)
  })
}

/** What they asked for by themselves, as far as it holds now. */
function limitsNow(db: Database, id: number, now: number): OwnLimits {
  const limits = ownLimitsOf(db, id)
  return isPaused(limits, now) ? limits : { ...limits, pausedUntil: null }
}
