import { beforeEach, expect, test } from 'vitest'
import { dueIn } from '../../core/people'
import { madeUpAccount, somebody } from '../made-up'
import type { Database } from '../query'
import { everythingKnown } from './everything-known'
import { mergePeople } from './merge'
import { erasePerson } from './erase'
import { addTask, deleteTask, setTaskDone, tasksDone, tasksOf, tasksToDo } from './tasks'

let db: Database
let tove: number
let kari: number
beforeEach(() => {
  ;({ db } = madeUpAccount())
  tove = somebody(db, 'tove', {})
  kari = somebody(db, 'kari', {})
})
const task = (text: string, due: string) => ({ text, due, for: null, by: 'Wren' })
const texts = (of: readonly { text: string }[]) => of.map(({ text }) => text)

test('what is to do stands by when it is due, and counts what was due by a day', () => {
  addTask(db, tove, task('later', '2026-12-24'), 1)
  addTask(db, kari, task('today', '2026-12-01'), 2)
  addTask(db, tove, { ...task('late', '2026-11-28'), for: 'wren@galewright.example' }, 3)
  const { tasks, open, due } = tasksToDo(db, '2026-12-01', 2)
  expect(texts(tasks)).toEqual(['late', 'today'])
  expect([open, due]).toEqual([3, 2])
  expect(tasks[0]).toMatchObject({
    ...{ person: { id: tove }, for: 'wren@galewright.example', by: 'Wren', at: 3, done: null },
  })
  expect(
    [-3, 0, 23].map((days, n) => [
      dueIn(['2026-11-28', '2026-12-01', '2026-12-24'][n]!, '2026-12-01'),
      days,
    ]),
  ).toEqual([
    [-3, -3],
    [0, 0],
    [23, 23],
  ])
})

test('a task is done by somebody, to do again, and deleted, by its own person alone', () => {
  const id = addTask(db, tove, task('ring', '2026-12-01'), 1)
  expect(setTaskDone(db, kari, id, { at: 5, by: 'Bram' })).toBe(false)
  expect(setTaskDone(db, tove, id, { at: 5, by: 'Bram' })).toBe(true)
  expect(tasksToDo(db, '2026-12-01', 9)).toEqual({ tasks: [], open: 0, due: 0 })
  expect(tasksDone(db, 9)).toMatchObject([{ text: 'ring', done: { at: 5, by: 'Bram' } }])
  expect(setTaskDone(db, tove, id, null)).toBe(true)
  expect(texts(tasksToDo(db, '2026-12-01', 9).tasks)).toEqual(['ring'])
  expect(deleteTask(db, kari, id)).toBe(false)
  expect(deleteTask(db, tove, id)).toBe(true)
  expect(setTaskDone(db, tove, id, null)).toBe(false)
})

test('tasks go with their person: to whom they are merged into, out with what is known, and away with them', () => {
  addTask(db, kari, task('ring', '2026-12-01'), 1)
  setTaskDone(db, tove, addTask(db, tove, task('write', '2026-11-01'), 2), { at: 9, by: 'Bram' })
  mergePeople(db, tove, kari, 10)
  // What is to do stands before what is done.
  expect(texts(tasksOf(db, tove))).toEqual(['ring', 'write'])
  expect(everythingKnown(db, tove)!.tasks).toMatchObject([
    { text: 'ring', done: null },
    { text: 'write', done: '1970-01-01T00:00:00.009Z' },
  ])
  erasePerson(db, tove, 11)
  expect(db.sqlite.prepare('select count(*) from tasks').pluck().get()).toBe(0)
})
