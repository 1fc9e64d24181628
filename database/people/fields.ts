import { dropFieldOrder } from './field-order'
import { convertValue, type Field, type FieldKind, type FieldValue } from '../../core/people'
import { all, one, preparedOnce, q, run, transact, type Database } from '../query'
import { markOf } from '../versions'

/** The fields of a person that are in use, first and last name before the account's own. */
export function readFields(db: Database): Field[] {
  const own = inUse(db).all({})
  return [
    { key: 'first_name', name: 'First name', kind: 'text' },
    { key: 'last_name', name: 'Last name', kind: 'text' },
    ...own.map((field) => ({ ...field, kind: field.kind as FieldKind })),
  ]
}
const inUse = preparedOnce<object, Field>(() =>
  q
    .selectFrom('fields')
    .select(['key', 'name', 'kind'])
    .where('retired_at', 'is', null)
    .orderBy('position')
    .orderBy('key'),
)

/** The fields that readers see and change on their own page: their names, and those that were opened to them. */
export function openFields(db: Database): Field[] {
  const open = new Set(ownFields(db).flatMap(({ key, readers }) => (readers ? [key] : [])))
  const names = ['first_name', 'last_name']
  return readFields(db).filter(({ key }) => names.includes(key) || open.has(key))
}

/** Adds a field unless one has its key already. */
export function addField(db: Database, { key, name, kind }: Field) {
  const position = one(
    db,
    q.selectFrom('fields').select((eb) => eb.fn.countAll<number>().as('n')),
  )!.n
  run(
    db,
    q
      .insertInto('fields')
      .values({ key, name, kind, position })
      .onConflict((conflict) => conflict.doNothing()),
  )
}

/** The account's own fields, those that are retired among them. */
export function ownFields(db: Database) {
  return all(
    db,
    q
      .selectFrom('fields')
      .select(['key', 'name', 'kind', 'retired_at', 'readers'])
      .$narrowType<{ kind: FieldKind }>()
      .orderBy('position')
      .orderBy('key'),
  )
}

/** The mark by which two who change a field are told apart; undefined: there is no such field. */
export function fieldVersion(db: Database, key: string): string | undefined {
  const field = ownFields(db).find((one) => one.key === key)
  return field && markOf([field.name, field.retired_at !== null, field.readers])
}

export function changeField(
  db: Database,
  key: string,
  change: { name?: string; retired_at?: number | null; readers?: number },
): boolean {
  if (change.retired_at) dropFieldOrder(db, key)
  return run(db, q.updateTable('fields').set(change).where('key', '=', key)).changes === 1
}

/** How many people have a value of each field. Reads everybody once. */
export function countValues(db: Database): Map<string, number> {
  const rows = db.sqlite
    .prepare('select f.key, count(*) as n from people, json_each(people.fields) f group by f.key')
    .all() as { key: string; n: number }[]
  return new Map(rows.map(({ key, n }) => [key, n]))
}

/** A change of a field that takes long, as a job of the engine. */
export type FieldChange =
  { do: 'retype'; key: string; kind: FieldKind } | { do: 'merge'; key: string; into: string }

/** What would come of a field's values if it were of another kind. */
export interface Retyping {
  kept: number
  lost: number
  /** Some values that would be lost, as they are. */
  examples: FieldValue[]
}

export function previewRetyping(db: Database, key: string, kind: FieldKind): Retyping {
  const found: Retyping = { kept: 0, lost: 0, examples: [] }
  for (const { values } of peopleWith(db, key)) {
    const value = values[key]!
    if (convertValue(value, kind) !== null) found.kept++
    else {
      found.lost++
      const shown = JSON.stringify(value)
      if (found.examples.length < 5 && !found.examples.some((one) => JSON.stringify(one) === shown))
        found.examples.push(value)
    }
  }
  return found
}

/**
 * Makes a field one of another kind; what can't be that is taken away. A generator, so that whoever runs it
 * may do something else between its batches; each is a transaction, and doing one again changes nothing.
 */
export function* retypeField(db: Database, key: string, kind: FieldKind, now: number) {
  run(db, q.updateTable('fields').set({ kind }).where('key', '=', key))
  yield* rewrite(db, key, now, (values) => {
    const { [key]: value, ...rest } = values
    const next = convertValue(value!, kind)
    return next === null ? rest : { ...rest, [key]: next }
  })
}

/** Moves the values of a field to another one where that has none, and takes the field away. */
export function* mergeField(db: Database, key: string, into: string, now: number) {
  const kind = ownFields(db).find((field) => field.key === into)!.kind
  yield* rewrite(db, key, now, (values) => {
    const { [key]: value, ...rest } = values
    const next = rest[into] === undefined ? convertValue(value!, kind) : null
    return next === null ? rest : { ...rest, [into]: next }
  })
  dropFieldOrder(db, key)
  run(db, q.deleteFrom('fields').where('key', '=', key))
}

type Values = Record<string, FieldValue>
const BATCH = 2_000

function* rewrite(db: Database, key: string, now: number, next: (values: Values) => Values) {
  let batch: { id: number; values: Values }[] = []
  const write = () =>
    transact(db, () => {
      for (const { id, values } of batch)
        run(
          db,
          q
            .updateTable('people')
            .set({ fields: JSON.stringify(next(values)), changed_at: now })
            .where('id', '=', id),
        )
    })
  for (const person of peopleWith(db, key)) {
    batch.push(person)
    if (batch.length < BATCH) continue
    write()
    batch = []
    yield person.id
  }
  write()
}

/** Everybody who has a value of a field, in batches by id. */
function* peopleWith(db: Database, key: string): Generator<{ id: number; values: Values }> {
  for (let after = 0; ;) {
    const rows = all(
      db,
      q
        .selectFrom('people')
        .select(['id', 'fields'])
        .where('id', '>', after)
        .where((eb) => eb(eb.fn('json_type', ['fields', eb.val(`$.${key}`)]), 'is not', null))
        .orderBy('id')
        .limit(BATCH),
    )
    if (rows.length === 0) return
    after = rows.at(-1)!.id
    for (const { id, fields } of rows) yield { id, values: JSON.parse(fields) as Values }
  }
}
