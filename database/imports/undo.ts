import type { FieldValue } from '../../core/people'
import { daysKept } from '../../core/retention'
import type { ImportChange } from './rows'
import type { Import } from './imports'
import {
  changePerson,
  dropUnusedField,
  dropUnusedTag,
  hushed,
  tagPeople,
  valuesOf,
} from '../people'
import { all, one, q, run, transact, type Database } from '../query'

/** An import can be undone for so long after it ended. */
export const UNDO_DAYS = daysKept('imports')

/** What undoing an import did. */
export interface Undone {
  removed: number
  /** Added by the import, and kept because something happened with them since. */
  kept: number
  putBack: number
  /** Fields and tags that it had made; missing of those undone before this was told. */
  made?: number
}

const BATCH = 500

/**
 * Undoes a part of an import, and says whether there was anything left; call it until there is not. Each
 * call is one transaction, and takes away its own record, so it goes on after a crash. It puts
 * back exactly what the import changed, and keeps what happened since: a value that was changed again
 * stays as it is, and somebody who was mailed, bought or signed up stays on file.
 */
export function undoSomeOfImport(db: Database, of: Import, undone: Undone, now: number): boolean {
  return hushed(db, () => undoChanges(db, of, undone, now) || undoAdded(db, of, undone, now))
}

/** Takes the fields and tags away that the import made and nothing else uses by now; how many. */
export function undoMade(db: Database, of: Import): number {
  return transact(db, () => {
    const made = all(
      db,
      q.selectFrom('import_made').select(['kind', 'ref']).where('import_id', '=', of.id),
    )
    const gone = made.filter(({ kind, ref }) =>
      kind === 'field' ? dropUnusedField(db, ref) : dropUnusedTag(db, Number(ref)),
    )
    run(db, q.deleteFrom('import_made').where('import_id', '=', of.id))
    return gone.length
  })
}

function undoChanges(db: Database, of: Import, undone: Undone, now: number): boolean {
  const rows = all(
    db,
    q
      .selectFrom('import_changes')
      .select(['person_id', 'change'])
      .where('import_id', '=', of.id)
      .limit(BATCH),
  )
  for (const { person_id, change } of rows) {
    const { values, tags, lists } = JSON.parse(change) as ImportChange
    const person = one(
      db,
      q
        .selectFrom('people')
        .select(['first_name', 'last_name', 'fields'])
        .where('id', '=', person_id),
    )!
    const present: Record<string, FieldValue | null> = valuesOf(person)
    const back = Object.entries(values).filter(
      ([key, { now: wrote }]) => JSON.stringify(present[key] ?? null) === JSON.stringify(wrote),
    )
    if (back.length)
      changePerson(
        db,
        person_id,
        { values: Object.fromEntries(back.map(([key, { was }]) => [key, was])) },
        now,
      )
    for (const tag of tags) tagPeople(db, [person_id], tag, false)
    for (const { listId, was } of lists) leaveAsBefore(db, of, person_id, listId, was, now)
    run(
      db,
      q
        .deleteFrom('import_changes')
        .where('import_id', '=', of.id)
        .where('person_id', '=', person_id),
    )
    undone.putBack++
  }
  return rows.length > 0
}

function undoAdded(db: Database, of: Import, undone: Undone, now: number): boolean {
  const range = one(
    db,
    q
      .selectFrom('import_added')
      .selectAll()
      .where('import_id', '=', of.id)
      .orderBy('first_id')
      .limit(1),
  )
  if (!range) return false
  const last = Math.min(range.last_id, range.first_id + BATCH - 1)
  const people = all(
    db,
    q
      .selectFrom('people')
      .select(['id', 'changed_at', 'joined_at'])
      .where('id', '>=', range.first_id)
      .where('id', '<=', last)
      // Before ids were used once, somebody else may have come to have one of these.
      .where('joined_at', '>=', of.created_at),
  )
  for (const { id, changed_at, joined_at } of people) {
    if (changed_at === joined_at && !wasActive(db, of, id)) {
      run(db, q.deleteFrom('people').where('id', '=', id))
      undone.removed++
      continue
    }
    const lists = all(
      db,
      q.selectFrom('subscriptions').select('list_id').where('person_id', '=', id),
    )
    for (const { list_id } of lists) leaveAsBefore(db, of, id, list_id, null, now)
    undone.kept++
  }
  run(
    db,
    q
      .deleteFrom('import_added')
      .where('import_id', '=', of.id)
      .where('first_id', '=', range.first_id),
  )
  if (last < range.last_id)
    run(
      db,
      q
        .insertInto('import_added')
        .values({ import_id: of.id, first_id: last + 1, last_id: range.last_id }),
    )
  return true
}

/** Whether anything happened with somebody that did not come from the import. */
function wasActive(db: Database, of: Import, id: number): boolean {
  const evidence = all(
    db,
    q.selectFrom('evidence').select(['way', 'way_ref']).where('person_id', '=', id),
  )
  const has = (table: 'recipients' | 'orders' | 'events' | 'notes') =>
    one(db, q.selectFrom(table).select('person_id').where('person_id', '=', id).limit(1)) !==
    undefined
  return (
    evidence.some(({ way, way_ref }) => way !== 'import' || way_ref !== String(of.id)) ||
    one(db, q.selectFrom('set_aside').select('at').where('person_id', '=', id)) !== undefined ||
    has('recipients') ||
    has('orders') ||
    has('events') ||
    has('notes')
  )
}

/** Ends a subscription that the import began, unless the person has done something about it since. */
function leaveAsBefore(
  db: Database,
  of: Import,
  personId: number,
  listId: number,
  was: string | null,
  now: number,
) {
  const latest = one(
    db,
    q
      .selectFrom('evidence')
      .select(['way', 'way_ref'])
      .where('person_id', '=', personId)
      .where('list_id', '=', listId)
      .orderBy('id', 'desc')
      .limit(1),
  )
  if (latest?.way !== 'import' || latest.way_ref !== String(of.id)) return
  const here = q
    .deleteFrom('subscriptions')
    .where('person_id', '=', personId)
    .where('list_id', '=', listId)
  if (was === 'pending')
    run(
      db,
      q
        .updateTable('subscriptions')
        .set({ state: 'pending', since: now })
        .where('person_id', '=', personId)
        .where('list_id', '=', listId),
    )
  else run(db, here)
  run(
    db,
    q.insertInto('evidence').values({
      person_id: personId,
      list_id: listId,
      at: now,
      state: was === 'pending' ? 'pending' : 'unsubscribed',
      way: 'import undone',
      way_ref: String(of.id),
    }),
  )
}
