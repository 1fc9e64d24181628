import { mkdtempSync, readFileSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeEach, expect, test } from 'vitest'
import { DAY, HOUR, MINUTE } from '../../core/time'
import { closeDatabase, openDatabase, openMemory } from '../connect'
import { readAccount } from './account'
import { auditLog, noteDeed } from './audit'
import { fillAccount } from '../made-up'
import { all, one, q, run, type Database } from '../query'
import { sealAll, sealedColumns, takeNewSealKey } from '../sealed'
import {
  beginSession,
  confirmSession,
  endSession,
  endSessionsOf,
  forgetOverSessions,
  sessionsOf,
  useSessionOf,
} from './sessions'
import { keepTrialMailbox, trialMailboxes } from '../mailings'
import {
  addUser,
  changeRole,
  hasUsers,
  makeReset,
  recoveryCodesLeft,
  removeUser,
  secondFactorOf,
  setPassword,
  setSecondFactor,
  useRecoveryCode,
  userByAddress,
  userById,
  userOfReset,
  usersOf,
  useStep,
} from './users'

let db: Database
let wren: number
let tove: number
const from = { device: 'Firefox on Linux', address: '203.0.113.5' }
const T0 = Date.UTC(2026, 10, 28)
beforeEach(() => {
  db = openMemory()
  const user = (name: string, role: 'owner' | 'writer') =>
    addUser(
      db,
      { name, address: `${name}@galewright.example`, passwordHash: `of ${name}`, role },
      0,
    )
  wren = user('wren', 'owner')
  tove = user('tove', 'writer')
})

test('a session holds by its key, which is not on file, and is noted as used once a minute', () => {
  const key = beginSession(db, wren, from, T0)
  expect(JSON.stringify(all(db, q.selectFrom('sessions').selectAll()))).not.toContain(key)
  expect(useSessionOf(db, key, from, T0 + 1_000)).toMatchObject({ user_id: wren, used_at: T0 })
  expect(sessionsOf(db, wren, T0)[0]!.used_at).toBe(T0)
  useSessionOf(db, key, from, T0 + MINUTE)
  useSessionOf(db, key, { ...from, address: '198.51.100.7' }, T0 + MINUTE + 1)
  expect(sessionsOf(db, wren, T0)).toMatchObject([
    { used_at: T0 + MINUTE + 1, address: '198.51.100.7', confirmed_at: T0 },
  ])
  expect(useSessionOf(db, `${key}x`, from, T0)).toBeNull()
  expect(useSessionOf(db, '', from, T0)).toBeNull()
})

test('sessions end one by one, all but this, and by themselves', () => {
  const [a, b, c] = [1, 2, 3].map((n) => beginSession(db, wren, from, T0 + n)) as [
    string,
    string,
    string,
  ]
  const other = beginSession(db, tove, from, T0)
  const id = useSessionOf(db, a, from, T0)!.id
  expect(endSession(db, tove, id)).toBe(false)
  expect(endSession(db, wren, id)).toBe(true)
  expect(useSessionOf(db, a, from, T0)).toBeNull()
  expect(endSessionsOf(db, wren, useSessionOf(db, b, from, T0)!.id)).toBe(1)
  expect(useSessionOf(db, c, from, T0)).toBeNull()
  expect(useSessionOf(db, b, from, T0 + 29 * DAY)).not.toBeNull()
  expect(useSessionOf(db, b, from, T0 + 58 * DAY)).not.toBeNull()
  expect(useSessionOf(db, other, from, T0 + 30 * DAY)).toBeNull()
  for (const day of [80, 89]) useSessionOf(db, b, from, T0 + day * DAY)
  expect(useSessionOf(db, b, from, T0 + 91 * DAY)).toBeNull()
  forgetOverSessions(db, T0 + 91 * DAY)
  expect(all(db, q.selectFrom('sessions').select('id'))).toEqual([])
})

test('giving the password again is noted in that session alone', () => {
  const [a, b] = [beginSession(db, wren, from, T0), beginSession(db, wren, from, T0)]
  confirmSession(db, useSessionOf(db, a, from, T0)!.id, T0 + HOUR)
  expect(useSessionOf(db, a, from, T0)!.confirmed_at).toBe(T0 + HOUR)
  expect(useSessionOf(db, b, from, T0)!.confirmed_at).toBe(T0)
})

test('who is removed is signed out, signs in no more, and can be let in again; somebody stays owner', () => {
  const key = beginSession(db, tove, from, T0)
  setSecondFactor(db, tove, { secret: 'S', step: 1, recoveryCodes: ['a'] })
  expect(removeUser(db, wren, T0)).toBe(false)
  expect(changeRole(db, wren, 'editor')).toBe(false)
  expect(removeUser(db, tove, T0)).toBe(true)
  expect(useSessionOf(db, key, from, T0)).toBeNull()
  expect(userById(db, tove)).toBeUndefined()
  expect(userByAddress(db, 'tove@galewright.example')).toBeUndefined()
  expect(usersOf(db).map(({ name }) => name)).toEqual(['wren'])
  const again = { name: 'Tove', address: 'tove@galewright.example', passwordHash: 'new' }
  expect(addUser(db, { ...again, role: 'owner' }, 1)).toBe(tove)
  expect(userByAddress(db, again.address)).toMatchObject({ name: 'Tove', password_hash: 'new' })
  expect(secondFactorOf(db, tove)).toBeNull()
  expect(changeRole(db, wren, 'viewer')).toBe(true)
  expect(hasUsers(db)).toBe(true)
})

test('a new password ends all sessions but the one in which it was set, and the link for one works once', () => {
  const [here, there] = [beginSession(db, wren, from, T0), beginSession(db, wren, from, T0)]
  const key = makeReset(db, wren, T0)
  expect(userOfReset(db, key, T0 + HOUR - 1)?.id).toBe(wren)
  expect(userOfReset(db, key, T0 + HOUR)).toBeUndefined()
  expect(userOfReset(db, 'guess', T0)).toBeUndefined()
  setPassword(db, wren, 'new', useSessionOf(db, here, from, T0)!.id)
  expect(useSessionOf(db, here, from, T0)).not.toBeNull()
  expect(useSessionOf(db, there, from, T0)).toBeNull()
  expect(userOfReset(db, key, T0)).toBeUndefined()
})

test('codes of a second factor are used once, and its secret is sealed', () => {
  setSecondFactor(db, wren, { secret: 'GEZDGNBVGY3TQOJQ', step: 10, recoveryCodes: ['one', 'two'] })
  const { totp_secret } = one(db, q.selectFrom('users').selectAll().where('id', '=', wren))!
  expect(totp_secret).toMatch(/^sealed:/)
  expect(secondFactorOf(db, wren)).toEqual({ secret: 'GEZDGNBVGY3TQOJQ', lastStep: 10 })
  expect([useStep(db, wren, 10), useStep(db, wren, 11), useStep(db, wren, 11)]).toEqual([
    false,
    true,
    false,
  ])
  expect(useRecoveryCode(db, wren, 'one')).toBe(true)
  expect(useRecoveryCode(db, wren, 'one')).toBe(false)
  expect(useRecoveryCode(db, tove, 'two')).toBe(false)
  expect(recoveryCodesLeft(db, wren)).toBe(1)
})

test('the audit log is read in pages and changed by nobody; after two years it may go', () => {
  const deed = (n: number) => ({
    ...{ userId: wren, userName: 'wren', did: 'changed a list', what: `/lists/${n}` },
    ...from,
  })
  for (let n = 1; n <= 5; n++) noteDeed(db, deed(n), T0 + n)
  noteDeed(db, deed(5), T0 + 6, HOUR)
  noteDeed(db, deed(5), T0 + 6 + HOUR, HOUR)
  const log = auditLog(db, null, 2)
  expect(log.map(({ what, at }) => [what, at])).toEqual([
    ['/lists/5', T0 + 6 + HOUR],
    ['/lists/5', T0 + 5],
  ])
  expect(auditLog(db, log[1]!.id, 9).map(({ what }) => what)).toEqual([
    '/lists/4',
    '/lists/3',
    '/lists/2',
    '/lists/1',
  ])
  expect(() => run(db, q.updateTable('audit').set({ user_name: 'tove' }))).toThrow(/never changed/)
  expect(() => run(db, q.deleteFrom('audit').where('id', '=', 1))).toThrow(/two years/)
  noteDeed(db, deed(6), T0 + 731 * DAY)
  run(db, q.deleteFrom('audit').where('at', '<', T0 + 100))
  expect(auditLog(db, null, 9)).toHaveLength(2)
})

test('every column whose name speaks of a secret is sealed, or is a hash', () => {
  const columns = (
    db.sqlite
      .prepare(
        "select m.name as t, p.name as c from sqlite_master m, pragma_table_info(m.name) p where m.type = 'table'",
      )
      .all() as { t: string; c: string }[]
  )
    .filter(({ c }) => /secret|password|private|token|_key$/.test(c))
    .map(({ t, c }) => `${t}.${c}`)
  // A hash, a number, and the part of a public address that its reader has anyway.
  const others = [
    'users.password_hash',
    'api_answers.token_id',
    'account.short_tokens_up_to',
    'letters.web_key',
  ]
  const sealed = sealedColumns.map((names) => names.join('.'))
  expect(columns.filter((column) => !sealed.includes(column) && !others.includes(column))).toEqual(
    [],
  )
})

test('secrets are sealed with a key beside the database; a new key is taken into use by all who have it open', () => {
  const folder = join(mkdtempSync(join(tmpdir(), 'satchel-seal-')), 'data')
  const one = openDatabase(folder)
  const other = openDatabase(folder)
  fillAccount(one, {}, T0)
  keepTrialMailbox(
    one,
    {
      ...{ address: 'a@b.example', host: 'h', port: 993, secure: 1 },
      ...{ login: 'a', password: 'known to us alone' },
    },
    T0,
  )
  const bare = () =>
    readFileSync(join(folder, 'satchel.db'), 'latin1') +
    readFileSync(join(folder, 'satchel.db-wal'), 'latin1')
  expect(bare()).not.toMatch(/known to us alone|PRIVATE KEY/)
  expect(readAccount(other)!.dkim_private_key).toContain('PRIVATE KEY')
  const key = readAccount(one)!.token_key
  expect(takeNewSealKey(one, folder)).toBe(3)
  expect(sealAll(one)).toBe(0)
  expect(readAccount(other)!.token_key).toBe(key)
  expect(trialMailboxes(other)[0]!.password).toBe('known to us alone')
  for (const name of ['satchel.db', 'satchel.db-wal', 'seal.key'])
    expect(statSync(join(folder, name)).mode & 0o077, name).toBe(0)
  expect(statSync(folder).mode & 0o077).toBe(0)
  closeDatabase(one)
  closeDatabase(other)
})

test('what an earlier version left bare is sealed, and goes on as it was', () => {
  fillAccount(db, {}, T0)
  const before = readAccount(db)!.token_key
  run(db, q.updateTable('account').set({ token_key: before }))
  expect(readAccount(db)!.token_key).toBe(before)
  expect(sealAll(db)).toBe(1)
  expect(one(db, q.selectFrom('account').select('token_key'))!.token_key).toMatch(/^sealed:/)
  expect(readAccount(db)!.token_key).toBe(before)
})
