import type { Selectable } from 'kysely'
import { fieldKeyFor } from '../../core/people'
import { all, one, q, run, type Database } from '../query'
import type { Schema } from '../schema'
import { markOf } from '../versions'

const shownOfLists = [
  ...(['id', 'name', 'key', 'description', 'public_name', 'public_about'] as const),
  ...(['public_often', 'offered', 'language'] as const),
] as const

/** The lists, in the order in which they were made. */
export function readLists(db: Database) {
  return all(db, q.selectFrom('lists').select(shownOfLists).orderBy('id'))
}

/** The lists with how many are subscribed to each. */
export function listsWithCounts(db: Database) {
  return all(
    db,
    q
      .selectFrom('lists')
      .select(shownOfLists)
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
  return run(
    db,
    q.insertInto('lists').values({ ...list, public_name: list.name, key, created_at: now }),
  ).id
}

/** The mark by which two who change a list are told apart; undefined: there is no such list. */
export function listVersion(db: Database, id: number): string | undefined {
  const list = readLists(db).find((one) => one.id === id)
  if (!list) return undefined
  const { name, description, public_name, public_about, public_often, offered, language } = list
  return markOf([name, description, public_name, public_about, public_often, offered, language])
}

/** What of a list is changed by hand. */
export type ListChange = Partial<
  Pick<
    Selectable<Schema['lists']>,
    | 'name'
    | 'description'
    | 'public_name'
    | 'public_about'
    | 'public_often'
    | 'offered'
    | 'language'
  >
>

/** Changes what a list is called here and before readers; its key stays, since mail programs file by it. */
export function changeList(db: Database, id: number, change: ListChange): boolean {
  return run(db, q.updateTable('lists').set(change).where('id', '=', id)).changes === 1
}
