import { beforeEach, expect, test } from 'vitest'
import { daysKept, retention } from '../../core/retention'
import { DAY } from '../../core/time'
import { noteDeed } from './audit'
import { createImport, updateImport } from '../imports'
import { addJob, finishJob } from '../jobs'
import { madeUpAccount, somebody } from '../made-up'
import { all, q, run, type Database } from '../query'
import { addReport, reportRead, reportsAbout } from '../sending'
import { deleteSomeOver, importFilesInUse } from './retention'
import { beginSession } from './sessions'
import { addUser } from './users'

let db: Database
const T0 = Date.UTC(2026, 0, 1)
const at = (days: number) => ({ now: T0 + days * DAY, host: T0 + days * DAY })
const rows = (table: 'reports' | 'audit' | 'sessions' | 'import_notices' | 'import_changes') =>
  all(db, q.selectFrom(table).selectAll()).length
beforeEach(() => ({ db } = madeUpAccount()))

test('everything that is kept says for how long and why', () => {
  for (const { what, days, why } of retention) {
    expect(what && why).toBeTruthy()
    expect(days === null || days > 0).toBe(true)
  }
  expect(new Set(retention.map(({ key }) => key)).size).toBe(retention.length)
})

test('reports, deeds and sessions go when they are over, and not before', () => {
  addReport(db, 'From: postmaster', T0)
  reportRead(db, 1, 'bounced', somebody(db, 'tove'))
  expect(reportsAbout(db, 1)).toHaveLength(1)
  const deed = { userId: 1, userName: 'Wren', did: 'signed in', what: '/', address: '', device: '' }
  noteDeed(db, deed, T0)
  noteDeed(db, deed, T0 + 700 * DAY)
  const user = { name: 'Wren', address: 'w@k.example', passwordHash: '!', role: 'owner' } as const
  beginSession(db, addUser(db, user, T0), { device: '', address: '' }, T0)
  deleteSomeOver(db, at(29))
  expect([rows('reports'), rows('audit'), rows('sessions')]).toEqual([1, 2, 1])
  deleteSomeOver(db, at(31))
  expect([rows('reports'), rows('audit'), rows('sessions')]).toEqual([1, 2, 0])
  deleteSomeOver(db, at(daysKept('reports') + 1))
  expect([rows('reports'), rows('audit')]).toEqual([0, 2])
  deleteSomeOver(db, at(daysKept('audit') - 1))
  expect(rows('audit')).toBe(2)
  // The log keeps two years from its latest entry.
  noteDeed(db, deed, T0 + 732 * DAY)
  deleteSomeOver(db, at(732))
  expect(rows('audit')).toBe(2)
})

test('many reports go a thousand at a time', () => {
  for (let n = 0; n < 1_500; n++) addReport(db, 'x', T0)
  expect(deleteSomeOver(db, at(91))).toBe(true)
  expect(rows('reports')).toBe(500)
  expect(deleteSomeOver(db, at(91))).toBe(false)
  expect(rows('reports')).toBe(0)
})

test('an import keeps its file while it can be undone, and its notices longer', () => {
  const file = {
    size: 1,
    encoding: 'utf-8',
    delimiter: ',',
    plans: [],
    listId: null,
    statement: '',
  }
  const id = createImport(db, { ...file, name: 'a.csv', path: '/data/imports/a' }, T0)
  createImport(db, { ...file, name: 'b.csv', path: '/data/imports/b' }, T0)
  updateImport(db, id, { state: 'done', finished_at: T0 + 5 * DAY })
  const notice = {
    import_id: id,
    row: 2,
    verdict: 'refused',
    reason: 'No @.',
    cells: '[]',
  } as const
  run(db, q.insertInto('import_notices').values(notice))
  const change = { import_id: id, person_id: somebody(db, 'tove'), change: '{}' }
  run(db, q.insertInto('import_changes').values(change))
  expect([...importFilesInUse(db, T0 + 20 * DAY)]).toEqual(['/data/imports/a', '/data/imports/b'])
  expect([...importFilesInUse(db, T0 + 31 * DAY)]).toEqual(['/data/imports/a'])
  expect([...importFilesInUse(db, T0 + 36 * DAY)]).toEqual([])
  deleteSomeOver(db, at(34))
  expect([rows('import_changes'), rows('import_notices')]).toEqual([1, 1])
  deleteSomeOver(db, at(36))
  expect([rows('import_changes'), rows('import_notices')]).toEqual([0, 1])
  deleteSomeOver(db, at(96))
  expect(rows('import_notices')).toBe(0)
})

test('copies of letters are emptied, jobs that wait are not', () => {
  const [done, waiting] = [1, 2].map(() => addJob(db, 'send-copies', { to: ['a@b.example'] }, T0))
  finishJob(db, done!, 'done', null, T0)
  deleteSomeOver(db, at(31))
  const payloads = all(db, q.selectFrom('jobs').select(['id', 'payload']).orderBy('id'))
  expect(payloads).toEqual([
    { id: done, payload: '{}' },
    { id: waiting, payload: '{"to":["a@b.example"]}' },
  ])
})
