import type { InferResult } from 'kysely'
import { nameOrAddress, type Task } from '../../core/people'
import type { Day } from '../../core/time'
import { all, one, q, run, type Database } from '../query'

/** What a task begins with. */
export type NewTask = Pick<Task, 'text' | 'due' | 'for' | 'by'>

/** Something is to be done about somebody; its id. */
export function addTask(db: Database, personId: number, task: NewTask, now: number): number {
  const { text, due, by } = task
  return run(
    db,
    q.insertInto('tasks').values({
      ...{ person_id: personId, text, due },
      for_address: task.for,
      by_name: by,
      at: now,
    }),
  ).id
}

/** Notes that a task of somebody's is done, and by whom; or (null) that it is to do again. False: it is gone. */
export function setTaskDone(
  db: Database,
  personId: number,
  taskId: number,
  done: Task['done'],
): boolean {
  const change = { done_at: done?.at ?? null, done_by: done?.by ?? null }
  const of = q.updateTable('tasks').where('id', '=', taskId).where('person_id', '=', personId)
  return run(db, of.set(change)).changes === 1
}

export function deleteTask(db: Database, personId: number, taskId: number): boolean {
  const of = q.deleteFrom('tasks').where('id', '=', taskId).where('person_id', '=', personId)
  return run(db, of).changes === 1
}

/** Somebody's tasks: first what is to do, by when it is due, then what was done, the latest first. */
export function tasksOf(db: Database, personId: number): Task[] {
  const theirs = rows().where('person_id', '=', personId)
  return [
    ...all(db, theirs.where('done_at', 'is', null).orderBy('due').orderBy('tasks.id')),
    ...all(db, theirs.where('done_at', 'is not', null).orderBy('done_at', 'desc')),
  ].map(taskOf)
}

/** What is to do, by when it is due; with how much there is in all, and how much was due by a day. */
export function tasksToDo(db: Database, today: Day, most: number) {
  const open = q.selectFrom('tasks').where('done_at', 'is', null)
  const many = (from: typeof open) =>
    one(
      db,
      from.select(({ fn }) => fn.countAll<number>().as('n')),
    )!.n
  const next = rows().where('done_at', 'is', null).orderBy('due').orderBy('tasks.id').limit(most)
  return {
    tasks: all(db, next).map(taskOf),
    open: many(open),
    due: many(open.where('due', '<=', today)),
  }
}

/** What was done last. */
export const tasksDone = (db: Database, most: number): Task[] =>
  all(db, rows().where('done_at', 'is not', null).orderBy('done_at', 'desc').limit(most)).map(
    taskOf,
  )

const rows = () =>
  q
    .selectFrom('tasks')
    .innerJoin('people', 'people.id', 'tasks.person_id')
    .select(['tasks.id', 'text', 'due', 'for_address', 'by_name', 'at', 'done_at', 'done_by'])
    .select(['person_id', 'first_name', 'last_name', 'address'])

type Row = InferResult<ReturnType<typeof rows>>[number]

function taskOf(row: Row): Task {
  const { id, text, due, at, person_id, done_at } = row
  return {
    ...{ id, person: { id: person_id, name: nameOrAddress(row) }, text, due, for: row.for_address },
    ...{ by: row.by_name, at },
    done: done_at === null ? null : { at: done_at, by: row.done_by ?? '' },
  }
}
