import type { Selectable } from 'kysely'
import type { ColumnPlan, FieldValue, ImportEntry } from '../core/people'
import { wordingId } from './subscriptions'
import { all, one, prepared, q, run, transact, type Database } from './query'
import type { Schema } from './schema'

export type Import = Selectable<Schema['imports']>

export function createImport(
  db: Database,
  file: {
    name: string
    path: string
    size: number
    encoding: string
    delimiter: string
    plans: ColumnPlan[]
    listId: number | null
    statement: string
  },
  now: number,
): number {
  return run(
    db,
    q.insertInto('imports').values({
      file_name: file.name,
      path: file.path,
      size: file.size,
      encoding: file.encoding,
      delimiter: file.delimiter,
      plans: JSON.stringify(file.plans),
      list_id: file.listId,
      statement: file.statement,
      state: 'waiting',
      created_at: now,
    }),
  ).id
}

export function importById(db: Database, id: number): Import | undefined {
  return one(db, q.selectFrom('imports').selectAll().where('id', '=', id))
}

export function recentImports(db: Database, limit: number) {
  return all(
    db,
    q
      .selectFrom('imports')
      .select(['id', 'file_name', 'state', 'rows', 'added', 'changed', 'refused', 'created_at'])
      .orderBy('id', 'desc')
      .limit(limit),
  )
}

export function updateImport(
  db: Database,
  id: number,
  change: Partial<Pick<Import, 'state' | 'job_id' | 'finished_at'>>,
) {
  run(db, q.updateTable('imports').set(change).where('id', '=', id))
}

/** Rows about which something is to be said, in the order of the file. */
export function importNotices(
  db: Database,
  id: number,
  verdict: 'refused' | 'doubtful',
  limit = 100_000,
) {
  return all(
    db,
    q
      .selectFrom('import_notices')
      .select(['row', 'reason', 'cells'])
      .where('import_id', '=', id)
      .where('verdict', '=', verdict)
      .orderBy('row')
      .limit(limit),
  )
}

export function endImport(db: Database, id: number, state: Import['state'], now: number) {
  updateImport(db, id, { state, finished_at: now })
}

/** A row of a file as it was understood. */
export type UnderstoodRow =
  | { row: number; entry: ImportEntry; cells: readonly string[] }
  | { row: number; refused: string; cells: readonly string[] }

type Outcome = 'added' | 'changed' | 'unchanged' | 'repeated' | 'refused' | 'never_mail'

/** Writes an import's rows, batch by batch. */
export interface ImportWriter {
  write(rows: readonly UnderstoodRow[], now: number): void
  /** Says that a row of an earlier run had this address, so that a repeated row is known for one. */
  meet(normal: string): void
}

/**
 * Writes rows of an import; call it with one batch after the other. Each batch is one transaction
 * that also counts its rows, so after a crash the import goes on behind the last one that was
 * written, and no row is taken twice.
 */
export function importWriter(db: Database, of: Import): ImportWriter {
  const met = new Set<number>()
  const statements = importStatements(db, of)
  const tagIds = new Map<string, number>()
  const tagId = (name: string) => {
    let id = tagIds.get(name)
    if (id === undefined) {
      run(
        db,
        q
          .insertInto('tags')
          .values({ name })
          .onConflict((c) => c.doNothing()),
      )
      id = one(db, q.selectFrom('tags').select('id').where('name', '=', name))!.id
      tagIds.set(name, id)
    }
    return id
  }
  const subscribe = (person: number, list: number, isNew: boolean, now: number): boolean => {
    const before = isNew ? undefined : statements.subscription.one({ person, list })?.state
    if (before === 'unsubscribed') return false
    if (before === 'subscribed') return true
    statements.subscribe.run({ person, list, now })
    statements.evidence.run({ person, list, now })
    return true
  }
  const write = (entry: ImportEntry, now: number): Outcome => {
    const { first_name = null, last_name = null, ...own } = entry.values
    const [first, last] = [first_name as string | null, last_name as string | null]
    let outcome: Outcome = 'added'
    // Most rows of a large file are new, so each is added first and looked up only if it is there.
    const added = statements.add.one({
      address: entry.address,
      normal: entry.normal,
      domain: entry.domain,
      first,
      last,
      fields: JSON.stringify(own),
      now,
    })
    const found = added ? undefined : statements.find.one({ normal: entry.normal })!
    const id = (added ?? found)!.id
    if (found) {
      outcome = met.has(id) ? 'repeated' : 'unchanged'
      const next = merged(found, first, last, own)
      if (next) {
        statements.change.run({ ...next, id, now })
        if (outcome === 'unchanged') outcome = 'changed'
      }
    }
    met.add(id)
    for (const tag of entry.tags) statements.tag.run({ person: id, tag: tagId(tag) })
    const lists = new Set([...entry.lists].filter(([, says]) => says).map(([list]) => list))
    if (of.list_id !== null && entry.lists.get(of.list_id) !== false) lists.add(of.list_id)
    let welcome = !found || statements.aside.one({ person: id }) === undefined
    for (const list of lists) if (!subscribe(id, list, !found, now)) welcome = false
    return welcome || outcome === 'repeated' ? outcome : 'never_mail'
  }
  const writeRows = (rows: readonly UnderstoodRow[], now: number) =>
    transact(db, () => {
      const counts: Record<Outcome, number> = {
        added: 0,
        changed: 0,
        unchanged: 0,
        repeated: 0,
        refused: 0,
        never_mail: 0,
      }
      for (const item of rows) {
        const refused = 'refused' in item ? item.refused : null
        counts[refused === null && 'entry' in item ? write(item.entry, now) : 'refused']++
        const reason = refused ?? ('entry' in item ? item.entry.cautions.join(' ') : '')
        if (reason !== '')
          statements.notice.run({
            row: item.row,
            verdict: refused === null ? 'doubtful' : 'refused',
            reason,
            cells: JSON.stringify(item.cells),
          })
      }
      run(
        db,
        q
          .updateTable('imports')
          .set((eb) => ({
            rows: eb('rows', '+', rows.length),
            ...(Object.fromEntries(
              Object.entries(counts).map(([name, n]) => [name, eb(name as Outcome, '+', n)]),
            ) as object),
          }))
          .where('id', '=', of.id),
      )
    })
  return {
    write: writeRows,
    meet(normal) {
      const found = statements.find.one({ normal })
      if (found) met.add(found.id)
    },
  }
}

/** What a found person becomes by an import, or null where nothing would change. Values not named stay. */
function merged(
  found: { first_name: string | null; last_name: string | null; fields: string },
  first: string | null,
  last: string | null,
  own: Record<string, FieldValue>,
) {
  const before = JSON.parse(found.fields) as Record<string, FieldValue>
  const next = {
    first: first ?? found.first_name,
    last: last ?? found.last_name,
    fields: JSON.stringify({ ...before, ...own }),
  }
  const same =
    next.first === found.first_name &&
    next.last === found.last_name &&
    next.fields === JSON.stringify(before)
  return same ? null : next
}

function importStatements(db: Database, of: Import) {
  const wording = of.statement === '' ? null : wordingId(db, of.statement)
  type Person = { id: number; first_name: string | null; last_name: string | null; fields: string }
  return {
    find: prepared<{ normal: string }, Person>(db, (value) =>
      q
        .selectFrom('people')
        .select(['id', 'first_name', 'last_name', 'fields'])
        .where('normal', '=', value('normal')),
    ),
    add: prepared<
      {
        address: string
        normal: string
        domain: string
        first: string | null
        last: string | null
        fields: string
        now: number
      },
      { id: number }
    >(db, (value) =>
      q
        .insertInto('people')
        .values({
          address: value('address'),
          normal: value('normal'),
          domain: value('domain'),
          first_name: value('first'),
          last_name: value('last'),
          fields: value('fields'),
          joined_at: value('now'),
          changed_at: value('now'),
        })
        .onConflict((c) => c.column('normal').doNothing())
        .returning('id'),
    ),
    change: prepared<{
      first: string | null
      last: string | null
      fields: string
      now: number
      id: number
    }>(db, (value) =>
      q
        .updateTable('people')
        .set({
          first_name: value('first'),
          last_name: value('last'),
          fields: value('fields'),
          changed_at: value('now'),
        })
        .where('id', '=', value('id')),
    ),
    tag: prepared<{ person: number; tag: number }>(db, (value) =>
      q
        .insertInto('person_tags')
        .values({ person_id: value('person'), tag_id: value('tag') })
        .onConflict((c) => c.doNothing()),
    ),
    aside: prepared<{ person: number }>(db, (value) =>
      q.selectFrom('set_aside').select('person_id').where('person_id', '=', value('person')),
    ),
    subscription: prepared<{ person: number; list: number }, { state: string }>(db, (value) =>
      q
        .selectFrom('subscriptions')
        .select('state')
        .where('person_id', '=', value('person'))
        .where('list_id', '=', value('list')),
    ),
    subscribe: prepared<{ person: number; list: number; now: number }>(db, (value) =>
      q
        .insertInto('subscriptions')
        .values({
          person_id: value('person'),
          list_id: value('list'),
          state: 'subscribed',
          since: value('now'),
        })
        .onConflict((c) =>
          c
            .columns(['person_id', 'list_id'])
            .doUpdateSet({ state: 'subscribed', since: value('now') }),
        ),
    ),
    evidence: prepared<{ person: number; list: number; now: number }>(db, (value) =>
      q.insertInto('evidence').values({
        person_id: value('person'),
        list_id: value('list'),
        at: value('now'),
        state: 'subscribed',
        way: 'import',
        way_ref: String(of.id),
        wording_id: wording,
      }),
    ),
    notice: prepared<{
      row: number
      verdict: 'refused' | 'doubtful'
      reason: string
      cells: string
    }>(db, (value) =>
      q
        .insertInto('import_notices')
        .values({
          import_id: of.id,
          row: value('row'),
          verdict: value('verdict'),
          reason: value('reason'),
          cells: value('cells'),
        })
        .onConflict((c) => c.doNothing()),
    ),
  }
}
