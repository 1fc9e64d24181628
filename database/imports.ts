import type { Selectable } from 'kysely'
import type { ColumnPlan, FieldValue, ImportEntry } from '../core/people'
import { tagNamed } from './person-changes'
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
    mode?: Import['mode']
    clearEmpty?: boolean
    tag?: string | null
    state?: 'waiting' | 'counting'
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
      mode: file.mode ?? 'both',
      clear_empty: file.clearEmpty ? 1 : 0,
      tag: file.tag ?? null,
      state: file.state ?? 'waiting',
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
  change: Partial<Pick<Import, 'state' | 'job_id' | 'finished_at' | 'preview' | 'undone'>>,
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

export type Outcome =
  'added' | 'changed' | 'unchanged' | 'repeated' | 'refused' | 'never_mail' | 'skipped'
export type OutcomeCounts = Record<Outcome, number>

const noCounts = (): OutcomeCounts => ({
  added: 0,
  changed: 0,
  unchanged: 0,
  repeated: 0,
  refused: 0,
  never_mail: 0,
  skipped: 0,
})

/** Takes an import's rows, batch by batch. */
export interface ImportWriter {
  write(rows: readonly UnderstoodRow[], now: number): void
  /** Says that a row of an earlier run had this address, so that a repeated row is known for one. */
  meet(normal: string): void
}

/** What changed about somebody who was on file, so that undoing can put back just that. */
export interface ImportChange {
  /** By field key: what was there, and what the import wrote. */
  values: Record<string, { was: FieldValue | null; now: FieldValue | null }>
  tags: number[]
  /** Lists they were put on, and how they stood before. */
  lists: { listId: number; was: string | null }[]
}

/**
 * Counts what an import would do, and writes nothing. `counts` tells at any time how it stands; of the
 * rows that would be refused or are doubtful the first are kept.
 */
export function importCounter(db: Database, of: Import) {
  const statements = importStatements(db, of)
  const counts = noCounts()
  const notices: { row: number; verdict: 'refused' | 'doubtful'; reason: string; cells: string }[] =
    []
  const met = new Set<string>()
  return {
    counts,
    notices,
    take(rows: readonly UnderstoodRow[]) {
      for (const item of rows) {
        const refused = 'refused' in item ? item.refused : null
        const reason = refused ?? ('entry' in item ? item.entry.cautions.join(' ') : '')
        if (reason !== '' && notices.length < 200)
          notices.push({
            row: item.row,
            verdict: refused === null ? 'doubtful' : 'refused',
            reason,
            cells: JSON.stringify(item.cells),
          })
        counts[refused === null && 'entry' in item ? outcomeOf(item.entry) : 'refused']++
      }
    },
  }

  function outcomeOf(entry: ImportEntry): Outcome {
    const found = statements.find.one({ normal: entry.normal })
    if (found ? of.mode === 'add' : of.mode === 'update') return 'skipped'
    const repeated = met.has(entry.normal)
    met.add(entry.normal)
    if (!found) return repeated ? 'repeated' : 'added'
    if (repeated) return 'repeated'
    if (!isWelcome(found.id, entry)) return 'never_mail'
    return mergedValues(found, entry.values) ? 'changed' : 'unchanged'
  }

  function isWelcome(person: number, entry: ImportEntry): boolean {
    if (statements.aside.one({ person })) return false
    return listsOf(of, entry).every(
      (list) => statements.subscription.one({ person, list })?.state !== 'unsubscribed',
    )
  }
}

/** The lists a row's person joins: those its columns say yes to, and that of the whole file unless they say no. */
function listsOf(of: Import, entry: ImportEntry): number[] {
  const lists = new Set([...entry.lists].filter(([, says]) => says).map(([list]) => list))
  if (of.list_id !== null && entry.lists.get(of.list_id) !== false) lists.add(of.list_id)
  return [...lists]
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
    if (id === undefined) tagIds.set(name, (id = tagNamed(db, name)))
    return id
  }
  let added: { first: number; last: number } | null = null

  const subscribe = (
    person: number,
    list: number,
    isNew: boolean,
    change: ImportChange,
    now: number,
  ) => {
    const before = isNew ? undefined : statements.subscription.one({ person, list })?.state
    if (before === 'unsubscribed') return false
    if (before === 'subscribed') return true
    statements.subscribe.run({ person, list, now })
    statements.evidence.run({ person, list, now })
    change.lists.push({ listId: list, was: before ?? null })
    return true
  }

  const write = (entry: ImportEntry, now: number): Outcome => {
    const { first_name = null, last_name = null, ...own } = present(entry.values)
    // Most rows of a large file are new, so each is added first and looked up only if it is there.
    const made =
      of.mode === 'update'
        ? undefined
        : statements.add.one({
            address: entry.address,
            normal: entry.normal,
            domain: entry.domain,
            first: first_name as string | null,
            last: last_name as string | null,
            fields: JSON.stringify(own),
            now,
          })
    const found = made ? undefined : statements.find.one({ normal: entry.normal })
    if (!made && (!found || of.mode === 'add'))
      return found && met.has(found.id) ? 'repeated' : 'skipped'
    const id = (made ?? found)!.id
    const change: ImportChange = { values: {}, tags: [], lists: [] }
    let outcome: Outcome = 'added'
    if (made) added = { first: added?.first ?? id, last: id }
    if (found) {
      outcome = met.has(id) ? 'repeated' : 'unchanged'
      const next = mergedValues(found, entry.values)
      if (next) {
        statements.change.run({ ...next.row, id, now })
        change.values = next.changed
        if (outcome === 'unchanged') outcome = 'changed'
      }
    }
    met.add(id)
    const tags = of.tag === null ? entry.tags : [...entry.tags, of.tag]
    for (const tag of tags)
      if (statements.tag.run({ person: id, tag: tagId(tag) })) change.tags.push(tagId(tag))
    let welcome = made !== undefined || statements.aside.one({ person: id }) === undefined
    for (const list of listsOf(of, entry))
      if (!subscribe(id, list, made !== undefined, change, now)) welcome = false
    if (found) remember(id, change)
    return welcome || outcome === 'repeated' ? outcome : 'never_mail'
  }

  /** Those the import added itself need no record of changes: they go as a whole. */
  const remember = (person: number, change: ImportChange) => {
    const isOurs = one(
      db,
      q
        .selectFrom('import_added')
        .select('first_id')
        .where('import_id', '=', of.id)
        .where('first_id', '<=', person)
        .where('last_id', '>=', person),
    )
    const inBatch = added !== null && person >= added.first && person <= added.last
    const nothing =
      !change.tags.length && !change.lists.length && !Object.keys(change.values).length
    if (nothing || inBatch || isOurs) return
    const before = statements.changed.one({ person })
    const merged = before ? laterChange(JSON.parse(before.change) as ImportChange, change) : change
    statements.remember.run({ person, change: JSON.stringify(merged) })
  }

  const writeRows = (rows: readonly UnderstoodRow[], now: number) =>
    transact(db, () => {
      const counts = noCounts()
      added = null
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
      if (added) {
        const { first, last } = added as { first: number; last: number }
        run(
          db,
          q.insertInto('import_added').values({ import_id: of.id, first_id: first, last_id: last }),
        )
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

/** Two changes of one import to one person as one: what was there first, what is there last. */
function laterChange(before: ImportChange, after: ImportChange): ImportChange {
  const values = { ...before.values }
  for (const [key, { was, now }] of Object.entries(after.values))
    values[key] = { was: key in before.values ? before.values[key]!.was : was, now }
  return {
    values,
    tags: [...before.tags, ...after.tags],
    lists: [...before.lists, ...after.lists],
  }
}

function present(values: Record<string, FieldValue | null>): Record<string, FieldValue> {
  return Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null)) as Record<
    string,
    FieldValue
  >
}

/** What a found person becomes by a row, or null where nothing would change. Values not named stay. */
function mergedValues(
  found: { first_name: string | null; last_name: string | null; fields: string },
  values: Record<string, FieldValue | null>,
) {
  const fields = JSON.parse(found.fields) as Record<string, FieldValue>
  const before: Record<string, FieldValue | null> = {
    ...fields,
    first_name: found.first_name,
    last_name: found.last_name,
  }
  const changed: ImportChange['values'] = {}
  for (const [key, now] of Object.entries(values)) {
    const was = before[key] ?? null
    if (JSON.stringify(was) !== JSON.stringify(now)) changed[key] = { was, now }
  }
  if (Object.keys(changed).length === 0) return null
  const { first_name, last_name, ...own } = { ...before, ...values }
  return {
    changed,
    row: {
      first: first_name as string | null,
      last: last_name as string | null,
      fields: JSON.stringify(present(own)),
    },
  }
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
    changed: prepared<{ person: number }, { change: string }>(db, (value) =>
      q
        .selectFrom('import_changes')
        .select('change')
        .where('import_id', '=', of.id)
        .where('person_id', '=', value('person')),
    ),
    remember: prepared<{ person: number; change: string }>(db, (value) =>
      q
        .insertInto('import_changes')
        .values({ import_id: of.id, person_id: value('person'), change: value('change') })
        .onConflict((c) =>
          c.columns(['import_id', 'person_id']).doUpdateSet({ change: value('change') }),
        ),
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
