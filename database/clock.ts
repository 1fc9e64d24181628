import { practiceTime, type Clock, type PracticeClock } from '../core/time'
import { one, prepared, q, run, type Database } from './query'

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

/** The clock all code of a process is given: the practice clock where there is one, else the host's. */
export function clockOf(db: Database, hostClock: Clock): Clock {
  const read = prepared<
    object,
    { anchor_real: number; anchor_practice: number; rate: number; jump_to: number | null }
  >(db, () => q.selectFrom('clock').select(['anchor_real', 'anchor_practice', 'rate', 'jump_to']))
  return () => {
    const row = read.one({})
    const host = hostClock()
    if (!row) return host
    return practiceTime(
      {
        anchorReal: row.anchor_real,
        anchorPractice: row.anchor_practice,
        rate: row.rate,
        jumpTo: row.jump_to,
      },
      host,
    )
  }
}
