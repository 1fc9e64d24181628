import type { Selectable } from 'kysely'
import { practiceTime, type Clock, type PracticeClock } from '../../core/time'
import type { Schema } from '../schema'
import { one, prepared, q, run, type Database } from '../query'

/** The practice clock as stored, or null where time is the host's. */
export function readClock(db: Database): PracticeClock | null {
  const row = one(db, q.selectFrom('clock').selectAll())
  return row
    ? {
        anchorReal: row.anchor_real,
        anchorPractice: row.anchor_practice,
        rate: row.rate,
        jumpTo: row.jump_to,
      }
    : null
}

export function writeClock(db: Database, clock: PracticeClock) {
  const values = {
    anchor_real: clock.anchorReal,
    anchor_practice: clock.anchorPractice,
    rate: clock.rate,
    jump_to: clock.jumpTo,
  }
  run(
    db,
    q
      .insertInto('clock')
      .values({ id: 1, ...values })
      .onConflict((conflict) => conflict.column('id').doUpdateSet(values)),
  )
}

/** How far the practice world has come, for a jump to wait for it. */
export function worldFollowed(db: Database, at: number) {
  run(db, q.updateTable('clock').set({ followed_at: at }).where('followed_at', '<', at))
}

export function worldFollowedTo(db: Database): number {
  return one(db, q.selectFrom('clock').select('followed_at'))?.followed_at ?? 0
}

/**
 * The clock all code of a process is given: the practice clock where the data folder has one, else
 * the host's. Which of them is decided once, when the process starts.
 */
export function clockOf(db: Database, hostClock: Clock): Clock {
  if (readClock(db) === null) return hostClock
  const read = prepared<object, Selectable<Schema['clock']>>(db, () =>
    q.selectFrom('clock').selectAll(),
  )
  return () => {
    const row = read.one({})!
    const { anchor_real: anchorReal, anchor_practice: anchorPractice, rate, jump_to: jumpTo } = row
    return practiceTime({ anchorReal, anchorPractice, rate, jumpTo }, hostClock())
  }
}
