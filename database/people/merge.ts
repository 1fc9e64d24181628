import { sql } from 'kysely'
import { dropOpenRecipients, moveClicks, moveReplies } from '../sending'
import { addJob } from '../jobs'
import { moveEnrolments } from './in-sequences'
import { isSuppressed, tagPeople } from './changes'
import { hushed } from './hushed'
import { all, one, q, raw, run, type Database } from '../query'
import { moveSendings } from '../sign-ups'
import { rememberMerge } from './merged'
import { mergeOwnLimits, moveOwnChanges } from '../readers'
import { suppress, subscriptionState } from './subscriptions'

/**
 * Makes two people one: `gone` goes, all that is known of them is `kept`'s from now on. Where both have
 * a value, that of `kept` stays. A subscription that either has ended stays ended, and who was
 * suppressed or paused their mail stays so: merging never makes anybody mailed who asked not to be.
 */
export function mergePeople(db: Database, kept: number, gone: number, now: number): boolean {
  return hushed(db, () => {
    const [one_, other] = [kept, gone].map((id) =>
      one(db, q.selectFrom('people').selectAll().where('id', '=', id)),
    )
    if (!one_ || !other || kept === gone) return false
    const fields = {
      ...(JSON.parse(other.fields) as object),
      ...(JSON.parse(one_.fields) as object),
    }
    run(
      db,
      q
        .updateTable('people')
        .set({
          first_name: one_.first_name ?? other.first_name,
          last_name: one_.last_name ?? other.last_name,
          fields: JSON.stringify(fields),
          joined_at: Math.min(one_.joined_at, other.joined_at),
          changed_at: now,
        })
        .where('id', '=', kept),
    )
    for (const { list_id, state, since } of all(
      db,
      q.selectFrom('subscriptions').selectAll().where('person_id', '=', gone),
    )) {
      const mine = subscriptionState(db, kept, list_id)
      const next =
        mine === 'unsubscribed' || state === 'unsubscribed'
          ? 'unsubscribed'
          : mine === 'subscribed'
            ? mine
            : state
      if (next === mine) continue
      run(
        db,
        q
          .insertInto('subscriptions')
          .values({ person_id: kept, list_id, state: next, since })
          .onConflict((c) =>
            c.columns(['person_id', 'list_id']).doUpdateSet({ state: next, since }),
          ),
      )
      run(
        db,
        q.insertInto('evidence').values({
          person_id: kept,
          list_id,
          at: now,
          state: next,
          way: 'merged',
          way_ref: other.address,
        }),
      )
      if (next === 'unsubscribed') dropOpenRecipients(db, kept, 'unsubscribed', now, list_id)
    }
    const aside = one(db, q.selectFrom('set_aside').selectAll().where('person_id', '=', gone))
    if (aside && !isSuppressed(db, kept)) suppress(db, kept, aside.reason, aside.detail, now)
    dropOpenRecipients(db, gone, 'merged with another person', now)
    for (const { tag_id } of all(
      db,
      q.selectFrom('person_tags').select('tag_id').where('person_id', '=', gone),
    ))
      tagPeople(db, [kept], tag_id, true)
    for (const evidence of all(
      db,
      q.selectFrom('evidence').selectAll().where('person_id', '=', gone),
    )) {
      const { id: _, ...row } = evidence
      run(db, q.insertInto('evidence').values({ ...row, person_id: kept }))
    }
    mergeOwnLimits(db, kept, gone)
    moveOwnChanges(db, gone, kept)
    moveSendings(db, gone, kept)
    moveHistory(db, kept, gone)
    moveReplies(db, gone, kept)
    addJob(db, 'move-acts', { from: gone, to: kept }, now)
    run(db, q.updateTable('reports').set({ person_id: kept }).where('person_id', '=', gone))
    rememberMerge(db, gone, kept)
    run(db, q.deleteFrom('people').where('id', '=', gone))
    return true
  })
}

/** Mail, orders, events, notes and tasks of one person become another's. What both had (one mailing) stays the kept one's. */
function moveHistory(db: Database, kept: number, gone: number) {
  moveClicks(db, gone, kept)
  moveEnrolments(db, gone, kept)
  for (const table of ['goal_starts', 'goal_hits'] as const)
    run(
      db,
      raw(
        sql`update or ignore ${sql.table(table)} set person_id = ${kept} where person_id = ${gone}`,
      ),
    )
  for (const row of all(db, q.selectFrom('recipients').selectAll().where('person_id', '=', gone))) {
    run(
      db,
      q
        .deleteFrom('recipients')
        .where('mailing_id', '=', row.mailing_id)
        .where('person_id', '=', gone)
        .where('round', '=', row.round),
    )
    run(
      db,
      q
        .insertInto('recipients')
        .values({ ...row, person_id: kept })
        .onConflict((c) => c.doNothing()),
    )
  }
  for (const row of all(
    db,
    q.selectFrom('leave_reasons').selectAll().where('person_id', '=', gone),
  ))
    run(
      db,
      q
        .insertInto('leave_reasons')
        .values({ ...row, person_id: kept })
        .onConflict((c) => c.doNothing()),
    )
  run(db, q.updateTable('events').set({ person_id: kept }).where('person_id', '=', gone))
  for (const table of ['notes', 'tasks'] as const)
    run(db, q.updateTable(table).set({ person_id: kept }).where('person_id', '=', gone))
  for (const { id, ...order } of all(
    db,
    q.selectFrom('orders').selectAll().where('person_id', '=', gone),
  )) {
    // An order stays with its person by rule of the database; merging is the one exception, so it is written anew.
    const items = all(db, q.selectFrom('order_items').selectAll().where('order_id', '=', id))
    run(db, q.deleteFrom('orders').where('id', '=', id))
    const again = run(db, q.insertInto('orders').values({ ...order, person_id: kept })).id
    for (const item of items)
      run(db, q.insertInto('order_items').values({ ...item, order_id: again }))
  }
}
