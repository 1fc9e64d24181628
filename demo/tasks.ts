import type { NewTask } from '../database/people'
import { addTask, setTaskDone } from '../database/people'
import { all, q, type Database } from '../database/query'
import { addDays, DAY, dayOf, HOUR } from '../core/time'
import { readAccount } from '../database/account'

/** What the kite makers are to do about people who bought much or wrote back: late, due, and done. */
export function makeTasks(db: Database, now: number) {
  const { zone } = readAccount(db)!
  const buyers = all(
    db,
    q
      .selectFrom('facts')
      .innerJoin('people', 'people.id', 'facts.person_id')
      .select('person_id')
      .where('first_name', 'is not', null)
      .orderBy('spent', 'desc')
      .orderBy('person_id')
      .limit(3),
  )
  const writers = all(
    db,
    q
      .selectFrom('replies')
      .innerJoin('people', 'people.id', 'replies.person_id')
      .select('person_id')
      .where('first_name', 'is not', null)
      .orderBy('replies.id', 'desc')
      .limit(3),
  )
  const tasks: [of: { person_id: number | null } | undefined, inDays: number, what: string][] = [
    [writers[0], -1, 'Answer the question about spars'],
    [buyers[0], 0, 'Ring about the trade-in of the old power kite'],
    [writers[1], 0, 'Send the sewing pattern that was asked for'],
    [buyers[1], 4, 'Invite to the spring workshop by hand'],
    [buyers[2], -3, 'Ask for a picture of the kite train'],
  ]
  for (const [n, [of, inDays, text]] of tasks.entries()) {
    if (!of || of.person_id === null) continue
    const due = dayOf(addDays(now, inDays, zone), zone)
    const task: NewTask = { text, due, for: null, by: n % 2 ? 'Wren Galewright' : 'Tove Ashdown' }
    const id = addTask(db, of.person_id, task, now - 5 * DAY - n * HOUR)
    if (inDays === -3)
      setTaskDone(db, of.person_id, id, { at: now - 2 * DAY, by: 'Wren Galewright' })
  }
}
