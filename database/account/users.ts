import { createHash, randomBytes } from 'node:crypto'
import { RESET_WORKS_FOR, type Role } from '../../core/team'
import { all, one, q, run, transact, type Database } from '../query'
import { seal, unseal } from '../sealed'
import { endSessionsOf } from './sessions'

/** Somebody who works here. */
export interface User {
  id: number
  name: string
  address: string
  role: Role
}

const columns = ['id', 'name', 'address', 'role'] as const
const workingHere = () => q.selectFrom('users').where('removed_at', 'is', null)
const hashOf = (key: string) => createHash('sha256').update(key).digest('hex')

export function hasUsers(db: Database): boolean {
  return one(db, workingHere().select('id').limit(1)) !== undefined
}

/** Somebody who works here, with what signs them in. */
export function userByAddress(db: Database, address: string) {
  return one(db, workingHere().selectAll().where('address', '=', address))
}

export function userById(db: Database, id: number): User | undefined {
  return one(db, workingHere().select(columns).where('id', '=', id))
}

/** Everybody who works here, by name. */
export function usersOf(db: Database): (User & { secondFactor: boolean })[] {
  const rows = workingHere()
    .select([...columns, 'totp_secret'])
    .orderBy('name')
  return all(db, rows).map(({ totp_secret, ...user }) => ({
    ...user,
    secondFactor: totp_secret !== null,
  }))
}

/** Where the team reads mail: at the account's own address, and everybody who works here. */
export function teamAddresses(db: Database): string[] {
  const own = one(db, q.selectFrom('account').select('sender_address'))?.sender_address
  return [...new Set([...(own ? [own] : []), ...usersOf(db).map(({ address }) => address)])]
}

export function firstUser(db: Database): User | undefined {
  return one(db, workingHere().select(columns).orderBy('id').limit(1))
}

/** Adds a user, or takes one in again who was removed; their id. */
export function addUser(
  db: Database,
  user: { name: string; address: string; passwordHash: string; role: Role },
  now: number,
): number {
  const { name, address, role, passwordHash } = user
  const given = { name, address, role, password_hash: passwordHash, created_at: now }
  return one(
    db,
    q
      .insertInto('users')
      .values(given)
      .onConflict((c) =>
        c
          .column('address')
          .doUpdateSet({ ...given, removed_at: null, totp_secret: null, totp_step: null })
          .where('users.removed_at', 'is not', null),
      )
      .returning('id'),
  )!.id
}

/** Whether somebody else is an owner as well. */
function isNotLastOwner(db: Database, id: number): boolean {
  const others = workingHere().select('id').where('role', '=', 'owner').where('id', '!=', id)
  return one(db, others.limit(1)) !== undefined
}

/** Changes somebody's role; false where nobody would be left who is an owner. */
export function changeRole(db: Database, id: number, role: Role): boolean {
  return transact(db, () => {
    if (role !== 'owner' && !isNotLastOwner(db, id)) return false
    run(db, q.updateTable('users').set({ role }).where('id', '=', id))
    return true
  })
}

/** Removes a user and ends their sessions; false where nobody would be left who is an owner. */
export function removeUser(db: Database, id: number, now: number): boolean {
  return transact(db, () => {
    if (!isNotLastOwner(db, id)) return false
    const gone = { removed_at: now, password_hash: '!', reset_hash: null, reset_until: null }
    run(db, q.updateTable('users').set(gone).where('id', '=', id))
    removeSecondFactor(db, id)
    endSessionsOf(db, id)
    return true
  })
}

export function passwordHashOf(db: Database, id: number): string | undefined {
  return one(db, workingHere().select('password_hash').where('id', '=', id))?.password_hash
}

/** Sets a password and ends every session but `but`; a link for a new one works no more. */
export function setPassword(db: Database, id: number, hash: string, but: number | null = null) {
  transact(db, () => {
    const set = { password_hash: hash, reset_hash: null, reset_until: null }
    run(db, q.updateTable('users').set(set).where('id', '=', id))
    endSessionsOf(db, id, but)
  })
}

/** A key with which somebody's password can be set anew, once, for an hour of the host's clock. */
export function makeReset(db: Database, id: number, now: number): string {
  const key = randomBytes(24).toString('base64url')
  const reset = { reset_hash: hashOf(key), reset_until: now + RESET_WORKS_FOR }
  run(db, q.updateTable('users').set(reset).where('id', '=', id))
  return key
}

/** Whose password a key sets anew; undefined where it works no more. */
export function userOfReset(db: Database, key: string, now: number): User | undefined {
  const whose = workingHere().select(columns).where('reset_hash', '=', hashOf(key))
  return one(db, whose.where('reset_until', '>', now))
}

/** The secret of somebody's second factor, and the step of the last code that was used; null for none. */
export function secondFactorOf(db: Database, id: number) {
  const row = one(db, workingHere().select(['totp_secret', 'totp_step']).where('id', '=', id))
  return row?.totp_secret ? { secret: unseal(db, row.totp_secret), lastStep: row.totp_step } : null
}

/** Sets a second factor, of which a code was just used, with its recovery codes. */
export function setSecondFactor(
  db: Database,
  id: number,
  { secret, step, recoveryCodes }: { secret: string; step: number; recoveryCodes: string[] },
) {
  transact(db, () => {
    removeSecondFactor(db, id)
    const set = { totp_secret: seal(db, secret), totp_step: step }
    run(db, q.updateTable('users').set(set).where('id', '=', id))
    for (const code of recoveryCodes)
      run(db, q.insertInto('recovery_codes').values({ user_id: id, hash: hashOf(code) }))
  })
}

export function removeSecondFactor(db: Database, id: number) {
  run(db, q.updateTable('users').set({ totp_secret: null, totp_step: null }).where('id', '=', id))
  run(db, q.deleteFrom('recovery_codes').where('user_id', '=', id))
}

/** Notes that a code was used; false where it, or a later one, was used already. */
export function useStep(db: Database, id: number, step: number): boolean {
  const newer = q
    .updateTable('users')
    .set({ totp_step: step })
    .where('id', '=', id)
    .where((or) => or.or([or('totp_step', 'is', null), or('totp_step', '<', step)]))
  return run(db, newer).changes === 1
}

/** Uses a recovery code up; whether there was such a one. */
export function useRecoveryCode(db: Database, id: number, code: string): boolean {
  const it = q
    .deleteFrom('recovery_codes')
    .where('user_id', '=', id)
    .where('hash', '=', hashOf(code))
  return run(db, it).changes === 1
}

/** How many recovery codes are left. */
export function recoveryCodesLeft(db: Database, id: number): number {
  const left = q.selectFrom('recovery_codes').select((eb) => eb.fn.countAll<number>().as('n'))
  return one(db, left.where('user_id', '=', id))!.n
}
