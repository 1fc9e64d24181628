import { fieldKeyFor, type Field, type FieldKind } from '../core/people'
import { all, one, q, run, type Database } from './query'

/** The lists with how many are subscribed to each. */
export function listsWithCounts(db: Database) {
  return all(
    db,
    q
      .selectFrom('lists')
      .select(['id', 'name', 'key', 'description'])
      .select((eb) =>
        eb
          .selectFrom('subscriptions')
          .select((inner) => inner.fn.countAll<number>().as('n'))
          .whereRef('list_id', '=', 'lists.id')
          .where('state', '=', 'subscribed')
          .as('subscribers'),
      )
      .$narrowType<{ subscribers: number }>()
      .orderBy('id'),
  )
}

export function listById(db: Database, id: number) {
  return one(db, q.selectFrom('lists').selectAll().where('id', '=', id))
}

/** Adds a list under a key that no other has; its id. */
export function addList(
  db: Database,
  list: { name: string; description: string },
  now: number,
): number {
  const taken = new Set(all(db, q.selectFrom('lists').select('key')).map(({ key }) => key))
  const key = fieldKeyFor(list.name, taken).replaceAll('_', '-')
  return run(db, q.insertInto('lists').values({ ...list, key, created_at: now })).id
}

/** The fields of a person, first and last name before the account's own. */
export function readFields(db: Database): Field[] {
  const own = all(
    db,
    q.selectFrom('fields').select(['key', 'name', 'kind']).orderBy('position').orderBy('key'),
  )
  return [
    { key: 'first_name', name: 'First name', kind: 'text' },
    { key: 'last_name', name: 'Last name', kind: 'text' },
    ...own.map((field) => ({ ...field, kind: field.kind as FieldKind })),
  ]
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
