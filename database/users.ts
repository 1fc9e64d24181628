import { all, one, q, run, type Database } from './query'

export function hasUsers(db: Database): boolean {
  return one(db, q.selectFrom('users').select('id').limit(1)) !== undefined
}

export function userByAddress(db: Database, address: string) {
  return one(db, q.selectFrom('users').selectAll().where('address', '=', address))
}

export function userById(db: Database, id: number) {
  return one(
    db,
    q.selectFrom('users').select(['id', 'name', 'address', 'role']).where('id', '=', id),
  )
}

/** Everybody who works here, by name. */
export function usersOf(db: Database) {
  return all(db, q.selectFrom('users').select(['id', 'name', 'address', 'role']).orderBy('name'))
}

export function firstUser(db: Database) {
  return one(
    db,
    q.selectFrom('users').select(['id', 'name', 'address', 'role']).orderBy('id').limit(1),
  )
}

/** Adds a user; their id. */
export function addUser(
  db: Database,
  user: { name: string; address: string; passwordHash: string; role: 'owner' | 'member' },
  now: number,
): number {
  const { name, address, role, passwordHash } = user
  return run(
    db,
    q
      .insertInto('users')
      .values({ name, address, role, password_hash: passwordHash, created_at: now }),
  ).id
}
