import type { FieldValue } from '../../core/people'
import { one, preparedOnce, q, run, transact, type Database } from '../query'
import { changeSubscription, suppress, subscriptionState } from './subscriptions'

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
  person: {
    address: string
    normal: string
    domain: string
    values: Record<string, FieldValue>
    /** Where they come from; see `people.source`. */
    source?: string
  },
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
        source: person.source ?? null,
        joined_at: now,
        changed_at: now,
      })
      .onConflict((c) => c.column('normal').doNothing()),
  )
  return changes ? id : null
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
 * Those for whom that changed something. Who is suppressed is not put on a list.
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
      const before = subscriptionState(db, id, listId)
      if (before === state || (state === 'unsubscribed' && before === null)) return false
      if (state === 'subscribed' && isSuppressed(db, id)) return false
      const by = { act: 'by-hand' as const, way: 'by hand', wording: reason }
      return changeSubscription(db, id, listId, state, by, now) === state
    }),
  )
}

/** Sets people aside by hand. Those who were not before. */
export function suppressPeople(
  db: Database,
  ids: readonly number[],
  reason: string,
  now: number,
): number[] {
  return transact(db, () =>
    ids.filter((id) => {
      if (isSuppressed(db, id)) return false
      suppress(db, id, 'by-hand', reason, now)
      return true
    }),
  )
}

/** Takes people back that were suppressed. Those who were. */
export function restorePeople(db: Database, ids: readonly number[]): number[] {
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

export function isSuppressed(db: Database, id: number): boolean {
  return setAside(db).one({ id }) !== undefined
}

const setAside = preparedOnce<{ id: number }>((value) =>
  q.selectFrom('set_aside').select('at').where('person_id', '=', value('id')),
)
