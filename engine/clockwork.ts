import { leapTo, nextLeap } from '../core/time'
import { readClock, worldFollowedTo, writeClock } from '../database/account'
import { nextMailingDue } from '../database/mailings'
import { isAnyUnderWay, nextRecipientDue, unjudgedActs } from '../database/sending'
import { nextStartDue, nextStepDue, nextToldDue } from '../database/sequences'
import { nextSignUpDue } from '../database/sign-ups'
import { nextAdvance } from './advance-mailings'
import type { Work } from './engine'

/** A jump does not wait longer than this for what is due, nor for the practice world to follow. */
const PATIENCE = 5_000
let arrivedAt = 0
let arrivedHost = 0

/**
 * Carries a jump of the practice clock out: from one thing that is due to the next, and on only
 * when what is due has been done and the practice world has followed.
 */
export const clockwork: Work = (engine) => {
  const { db, clock, hostClock, stalled } = engine
  const setting = readClock(db)
  engine.jumping = setting !== null && setting.jumpTo !== null
  if (!setting || setting.jumpTo === null) return false
  const now = clock()
  if (arrivedAt !== now) [arrivedAt, arrivedHost] = [now, hostClock()]
  const dues = [
    nextMailingDue(db),
    nextRecipientDue(db),
    nextAdvance(db, now),
    nextStepDue(db),
    nextStartDue(db),
    nextToldDue(db),
    nextSignUpDue(db),
  ].filter((due) => due !== null)
  const next = dues.length ? Math.min(...dues) : null
  // What is on its way arrives at the time at which it was sent, and not after the next leap.
  const undone =
    (!stalled && ((next !== null && next <= now) || isAnyUnderWay(db))) ||
    unjudgedActs(db, now - 10_000, 1).length > 0
  const behind = worldFollowedTo(db) < now
  if ((undone || behind) && hostClock() - arrivedHost < PATIENCE) return false
  writeClock(db, leapTo(setting, hostClock(), nextLeap(now, setting.jumpTo, next)))
  return true
}
