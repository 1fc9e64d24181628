import { beforeEach, expect, test } from 'vitest'
import { openMemory } from '../connect'
import { addJob, cancelJob, finishJob, jobById, jobProgress, jobsDied, takeJob } from './jobs'
import type { Database } from '../query'

let db: Database
beforeEach(() => (db = openMemory()))

test('jobs are taken one by one, in the order they were asked for', () => {
  const first = addJob(db, 'import', { importId: 1 }, 10)
  const second = addJob(db, 'import', { importId: 2 }, 11)
  expect(takeJob(db, 'a', ['a'])).toMatchObject({ id: first, state: 'running', engine: 'a' })
  expect(takeJob(db, 'b', ['a', 'b'])).toMatchObject({ id: second, engine: 'b' })
  expect(takeJob(db, 'a', ['a', 'b'])).toBeUndefined()
})

test('what a dead engine had is taken over where it stood; what a live one has is not', () => {
  const id = addJob(db, 'import', { importId: 1 }, 10)
  takeJob(db, 'a', ['a'])
  jobProgress(db, id, 40, 100)
  expect(takeJob(db, 'b', ['a', 'b'])).toBeUndefined()
  expect(takeJob(db, 'b', ['b'])).toMatchObject({ id, engine: 'b', done: 40, total: 100 })
  expect(takeJob(db, 'c', ['b', 'c'])).toBeUndefined()
})

test('a job whose process ended at it waits again, and how often that was is kept', () => {
  const id = addJob(db, 'import', { importId: 1 }, 10)
  const other = addJob(db, 'import', { importId: 2 }, 11)
  takeJob(db, 'a', ['a'])
  takeJob(db, 'b', ['a', 'b'])
  jobsDied(db, 'a')
  expect(jobById(db, id)).toMatchObject({ state: 'waiting', deaths: 1 })
  expect(jobById(db, other)).toMatchObject({ state: 'running', engine: 'b', deaths: 0 })
  takeJob(db, 'c', ['b', 'c'])
  jobsDied(db, 'c')
  expect(jobById(db, id)).toMatchObject({ state: 'waiting', deaths: 2 })
  finishJob(db, id, 'failed', 'It ended twice.', 12)
  jobsDied(db, 'c')
  expect(jobById(db, id)).toMatchObject({ state: 'failed', deaths: 2 })
})

test('a job that has ended is never taken again', () => {
  for (const state of ['done', 'failed', 'cancelled'] as const) {
    const id = addJob(db, 'import', {}, 10)
    takeJob(db, 'a', ['a'])
    finishJob(db, id, state, state === 'failed' ? 'The file is gone.' : null, 20)
    expect(jobById(db, id)).toMatchObject({ state, finished_at: 20 })
    expect(takeJob(db, 'b', ['b'])).toBeUndefined()
  }
})

test('progress tells whether the user wants it to stop', () => {
  const id = addJob(db, 'import', {}, 10)
  takeJob(db, 'a', ['a'])
  expect(jobProgress(db, id, 1, 10)).toEqual({ cancel: false })
  cancelJob(db, id)
  expect(jobProgress(db, id, 2, 10)).toEqual({ cancel: true })
})

test('what has ended can’t be cancelled any more', () => {
  const id = addJob(db, 'import', {}, 10)
  takeJob(db, 'a', ['a'])
  finishJob(db, id, 'done', null, 20)
  cancelJob(db, id)
  expect(jobById(db, id)).toMatchObject({ state: 'done', cancel: 0 })
})
