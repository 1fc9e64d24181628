import type { ImportEntry } from '../../core/people'
import {
  listsOf,
  mergedValues,
  noCounts,
  present,
  type ImportChange,
  type Outcome,
  type UnderstoodRow,
} from './rows'
import { importStatements, noteRow } from './statements'
import { rememberMade, type Import } from './imports'
import { hushed, tagNamed } from '../people'
import { one, q, run, transact, type Database } from '../query'

/** Takes an import's rows, batch by batch. */
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
  const met = peopleMet()
  const statements = importStatements(db, of)
  const tagIds = new Map<string, number>()
  const tagId = (name: string) => {
    let id = tagIds.get(name)
    if (id === undefined) {
      const known = statements.tagNamed.one({ name }) !== undefined
      tagIds.set(name, (id = tagNamed(db, name)))
      if (!known) rememberMade(db, of.id, 'tag', String(id))
    }
    return id
  }
  const source = `import:${of.id}`
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
            source,
            now,
          })
    const found = made ? undefined : statements.find.one({ normal: entry.normal })
    if (!made && (!found || of.mode === 'add'))
      return found && met.has(found.id) ? 'repeated' : 'skipped'
    const id = (made ?? found)!.id
    if (of.repeats === 'first' && found && met.has(id)) return 'repeated'
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
    if (made) met.addNew(id)
    else met.add(id)
    const tags = of.tag === null ? entry.tags : [...entry.tags, of.tag]
    for (const tag of tags)
      if (statements.tag.run({ person: id, tag: tagId(tag) })) change.tags.push(tagId(tag))
    let welcome = made !== undefined || statements.aside.one({ person: id }) === undefined
    for (const list of listsOf(of, entry))
      if (!subscribe(id, list, made !== undefined, change, now)) welcome = false
    if (outcome === 'unchanged' && (change.tags.length || change.lists.length)) outcome = 'changed'
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

  // Nobody comes in by a file that was not meant to start anything.
  const taking = of.starts_sequences ? transact : hushed
  const writeRows = (rows: readonly UnderstoodRow[], now: number) =>
    taking(db, () => {
      const counts = noCounts()
      added = null
      for (const item of rows) {
        noteRow(statements, item)
        if ('leftOut' in item) counts.skipped++
        else if ('refused' in item) counts.refused++
        else counts[write(item.entry, now)]++
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

/** Ids of people that have been met. New people's follow on each other, so of those only the ends are kept. */
function peopleMet() {
  const others = new Set<number>()
  const runs: { first: number; last: number }[] = []
  return {
    add: (id: number) => void others.add(id),
    addNew(id: number) {
      const latest = runs.at(-1)
      if (latest?.last === id - 1) latest.last = id
      else runs.push({ first: id, last: id })
    },
    has: (id: number) =>
      others.has(id) || runs.some(({ first, last }) => id >= first && id <= last),
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
