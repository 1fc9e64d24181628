import { DAY, startOfDay, type Day } from '../time'

/** Something that the team is to do about somebody. */
export interface Task {
  id: number
  person: { id: number; name: string }
  text: string
  /** Until when, on the account's calendar. */
  due: Day
  /** The address of whoever of the team is to do it; null: anybody. */
  for: string | null
  /** Who or which sequence made it, and when, UTC ms. */
  by: string
  at: number
  /** When and by whom it was done; null: it is still to do. */
  done: { at: number; by: string } | null
}

export const LONGEST_TASK = 500
/** A step's task may be due so many days after it. */
export const MOST_TASK_DAYS = 365

/** In how many days a task is due; less than 0: it is late. */
export const dueIn = (due: Day, today: Day): number =>
  Math.round((startOfDay(due, 'utc') - startOfDay(today, 'utc')) / DAY)
