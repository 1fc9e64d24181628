import { randomInt } from 'node:crypto'
import { sql, type SqlBool } from 'kysely'
import type { FieldValue } from '../core/people'
import { rememberErased } from './erased'
import { dropOpenRecipients } from './recipients'
import { all, one, q, run, transact, type Database } from './query'
import { changeSubscription, setAside } from './subscriptions'

/** What somebody is called, and their values by field key; null takes a value away. */
export interface PersonChange {
  address?: string
  normal?: string
  domain?: string
  values?: Record<string, FieldValue | null>
}

/**
 * Changes a person; only what is named. What was there before, as a change that undoes this one; null
 * where there is no such person, or another one has the address.
 */
export function changePerson(
  db: Database,
  id: number,
  change: PersonChange,
  now: number,
): PersonChange | null {
  return transact(db, () => {
    const person = one(db, q.selectFrom('people').selectAll().where('id', '=', id))
    if (!person) return null
    const { normal } = change
    if (
      normal !== undefined &&
      one(
        db,
        q.selectFrom('people').select('id').where('normal', '=', normal).where('id', '<>', id),
      )
    )
      return null
    const before = JSON.parse(person.fields) as Record<string, FieldValue>
    const undo: PersonChange = { values: {} }
    const next = { ...before }
    const names: { first_name?: string | null; last_name?: string | null } = {}
    for (const [key, value] of Object.entries(change.values ?? {})) {
      if (key === 'first_name' || key === 'last_name') {
        undo.values![key] = person[key]
        names[key] = value === null ? null : String(value)
      } else {
        undo.values![key] = before[key] ?? null
        if (value === null) delete next[key]
        else next[key] = value
      }
    }
    if (normal !== undefined)
      Object.assign(undo, { address: person.address, normal: person.normal, domain: person.domain })
    run(
      db,
      q
        .updateTable('people')
        .set({
          ...names,
          ...(normal === undefined
            ? {}
            : { address: change.address!, normal, domain: change.domain! }),
          fields: JSON.stringify(next),
          changed_at: now,
        })
        .where('id', '=', id),
    )
    return undo
  })
}

/** Adds somebody by hand; their id, or null where the address is on file already. */
export function addPerson(
  db: Database,
  person: { address: string; normal: string; domain: string; values: Record<string, FieldValue> },
  now: number,
): number | null {
  const { first_name = null, last_name = null, ...own } = person.values
  const { changes, id } = run(
    db,
    q
      .insertInto('people')
      .values({
        address: person.address,
        normal: person.normal,
        domain: person.domain,
        first_name: first_name as string | null,
        last_name: last_name as string | null,
        fields: JSON.stringify(own),
        joined_at: now,
        changed_at: now,
      })
      .onConflict((c) => c.column('normal').doNothing()),
  )
  return changes ? id : null
}

/** The id of a tag by its name; it is made where there is none. */
export function tagNamed(db: Database, name: string): number {
  run(
    db,
    q
      .insertInto('tags')
      .values({ name })
      .onConflict((c) => c.doNothing()),
  )
  return one(db, q.selectFrom('tags').select('id').where('name', '=', name))!.id
}

/** Tags some people, or takes the tag from them. Those for whom that changed something. */
export function tagPeople(
  db: Database,
  ids: readonly number[],
  tagId: number,
  on: boolean,
): number[] {
  return transact(db, () =>
    ids.filter((person_id) =>
      on
        ? run(
            db,
            q
              .insertInto('person_tags')
              .values({ person_id, tag_id: tagId })
              .onConflict((c) => c.doNothing()),
          ).changes
        : run(
            db,
            q
              .deleteFrom('person_tags')
              .where('person_id', '=', person_id)
              .where('tag_id', '=', tagId),
          ).changes,
    ),
  )
}

/**
 * Puts people on a list, or takes them off it, by hand and with a reason, which becomes evidence.
 * Those for whom that changed something. Who is set aside is not put on a list.
 */
export function listPeople(
  db: Database,
  ids: readonly number[],
  listId: number,
  state: 'subscribed' | 'unsubscribed',
  reason: string,
  now: number,
): number[] {
  return transact(db, () =>
    ids.filter((id) => {
      const before = standingOn(db, id, listId)
      if (before === state || (state === 'unsubscribed' && before === null)) return false
      if (state === 'subscribed' && isSetAside(db, id)) return false
      const by = { act: 'by-hand' as const, way: 'by hand', wording: reason }
      return changeSubscription(db, id, listId, state, by, now) === state
    }),
  )
}

/** Sets people aside by hand. Those who were not before. */
export function setPeopleAside(
  db: Database,
  ids: readonly number[],
  reason: string,
  now: number,
): number[] {
  return transact(db, () =>
    ids.filter((id) => {
      if (isSetAside(db, id)) return false
      setAside(db, id, 'by-hand', reason, now)
      return true
    }),
  )
}

/** Takes people back that were set aside. Those who were. */
export function takePeopleBack(db: Database, ids: readonly number[]): number[] {
  return transact(db, () =>
    ids.filter(
      (id) => run(db, q.deleteFrom('set_aside').where('person_id', '=', id)).changes === 1,
    ),
  )
}

export function addNote(
  db: Database,
  personId: number,
  byName: string,
  text: string,
  now: number,
): number {
  return run(
    db,
    q.insertInto('notes').values({ person_id: personId, at: now, by_name: byName, text }),
  ).id
}

export function deleteNote(db: Database, personId: number, noteId: number): boolean {
  return (
    run(db, q.deleteFrom('notes').where('id', '=', noteId).where('person_id', '=', personId))
      .changes === 1
  )
}

/**
 * Makes two people one: `gone` goes, all that is known of them is `kept`'s from now on. Where both have
 * a value, that of `kept` stays. A subscription that either has ended stays ended, and who was
 * set aside stays set aside: merging never makes anybody mailed who asked not to be.
 */
export function mergePeople(db: Database, kept: number, gone: number, now: number): boolean {
  return transact(db, () => {
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
      const mine = standingOn(db, kept, list_id)
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
      if (next === 'unsubscribed') dropOpenRecipients(db, kept, 'left the list', now, list_id)
    }
    const aside = one(db, q.selectFrom('set_aside').selectAll().where('person_id', '=', gone))
    if (aside && !isSetAside(db, kept)) setAside(db, kept, aside.reason, aside.detail, now)
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
    moveHistory(db, kept, gone)
    run(db, q.deleteFrom('people').where('id', '=', gone))
    return true
  })
}

/** Mail, orders, events and notes of one person become another's. What both had (one mailing) stays the kept one's. */
function moveHistory(db: Database, kept: number, gone: number) {
  moveClicks(db, gone, kept)
  for (const row of all(db, q.selectFrom('recipients').selectAll().where('person_id', '=', gone))) {
    run(
      db,
      q
        .deleteFrom('recipients')
        .where('mailing_id', '=', row.mailing_id)
        .where('person_id', '=', gone),
    )
    run(
      db,
      q
        .insertInto('recipients')
        .values({ ...row, person_id: kept })
        .onConflict((c) => c.doNothing()),
    )
  }
  run(db, q.updateTable('events').set({ person_id: kept }).where('person_id', '=', gone))
  run(db, q.updateTable('notes').set({ person_id: kept }).where('person_id', '=', gone))
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

/**
 * Erases a person for good: everything about them goes, and so does who it was that the counts of past
 * mailings were about. Only a keyed hash of the address stays, so that no import brings them back.
 */
export function erasePerson(db: Database, id: number, now: number): boolean {
  return transact(db, () => {
    const person = one(db, q.selectFrom('people').select('normal').where('id', '=', id))
    if (!person) return false
    dropOpenRecipients(db, id, 'erased', now)
    rememberErased(db, person.normal, now)
    // What past mailings counted stays counted, under a number that leads nowhere and is never given again.
    const nobody = -randomInt(2 ** 47)
    moveClicks(db, id, nobody)
    run(
      db,
      q
        .updateTable('recipients')
        .set({ person_id: nobody, answer: null })
        .where('person_id', '=', id),
    )
    run(
      db,
      q
        .deleteFrom('import_notices')
        .where('cells', 'like', `%${person.normal.replace(/[\\%_]/g, '_')}%`),
    )
    run(db, q.deleteFrom('people').where('id', '=', id))
    return true
  })
}

/** Clicks are found by their mailing; opens are only ever looked at through their recipient. */
function moveClicks(db: Database, from: number, to: number) {
  const mailings = all(
    db,
    q.selectFrom('recipients').select('mailing_id').where('person_id', '=', from),
  )
  for (const { mailing_id } of mailings)
    run(
      db,
      q
        .updateTable('acts')
        .set({ person_id: to })
        .where('mailing_id', '=', mailing_id)
        .where('person_id', '=', from)
        .where(() => sql<SqlBool>`kind = 'click'`),
    )
}

function standingOn(db: Database, personId: number, listId: number) {
  return (
    one(
      db,
      q
        .selectFrom('subscriptions')
        .select('state')
        .where('person_id', '=', personId)
        .where('list_id', '=', listId),
    )?.state ?? null
  )
}

function isSetAside(db: Database, id: number): boolean {
  return one(db, q.selectFrom('set_aside').select('at').where('person_id', '=', id)) !== undefined
}
