import { changedSince, type Fingerprint } from '../../core/dispatch'
import { timeToLocalInput } from '../../core/time'
import { transact, type Database } from '../../database'
import { readAccount } from '../../database/account'
import {
  approvalOf,
  fingerprintOf,
  mailingById,
  moveMailing,
  updateMailing,
  firstLocalTime,
  planOf,
} from '../../database/mailings'
import { dispatchBlockers } from './proof'

/** What was asked for: a time, or (null) at once; and what its sender was shown of what will happen. */
interface Wanted {
  at: number | null
  seen: Fingerprint
  /** How many it would be mailed to now; null while it has no list. */
  people: number | null
  now: number
  /** Of the host's clock, by which it can be called back. */
  hostNow: number
  /** Whether it goes out only as it was approved: its sender may not send what was not. */
  approvedOnly?: boolean
}

/** `refused`: why nothing is sent. `overtaken`: it is not what was shown any more. */
export type SentOff =
  { refused: string } | { overtaken: string } | { scheduledAt: number; callbackMs: number }

/**
 * Sends a mailing off. What its sender was shown is what goes out: where that is not so any more, nothing is sent, and it
 * says what has changed. Blockers hold it. For some seconds it can be called back before anything goes out.
 */
export function sendOff(
  db: Database,
  id: number,
  { at, seen, people, now, hostNow, approvedOnly = false }: Wanted,
): SentOff {
  return transact(db, () => {
    const mailing = mailingById(db, id)!
    const { zone, callback_seconds } = readAccount(db)!
    if (mailing.started_at !== null) return { refused: 'This mailing has begun to go out.' }
    if (mailing.state === 'scheduled')
      return { refused: 'It is scheduled already. Make it a draft again to change that.' }
    const blockers = dispatchBlockers(db, mailing, now)
    if (blockers.length || people === null)
      return { refused: `The proof blocks it: ${blockers.join('; ')}.` }
    const changed = changedSince(seen, fingerprintOf(db, mailing, at, people))
    if (changed.length)
      return {
        overtaken: `Nothing was sent: ${changed.join(', ')} changed since this was shown. Look at it again, then send it.`,
      }
    if (approvedOnly) {
      const approval = approvalOf(db, mailing.letter_id, people)
      if (approval?.verdict !== 'approved')
        return { refused: 'Writers send what was approved. Ask an editor for approval first.' }
      if (approval.lapsed)
        return {
          refused: `What was approved is not what would go out: ${approval.lapsedBy.join(', ')} changed since. Ask for approval again.`,
        }
    }
    const plan = planOf(mailing)
    if (plan.pace === 'local-time' && at === null)
      return { refused: 'Set the time that it is to be on each reader’s clock.' }
    // It begins where that time comes first; each gets it when it comes to them.
    const wish = at === null ? null : timeToLocalInput(at, zone)
    const localAt = plan.pace === 'local-time' ? wish : null
    const begins = localAt === null ? (at ?? now) : firstLocalTime(db, { ...plan, localAt }, zone)!
    if (localAt !== null) updateMailing(db, id, { plan: JSON.stringify({ ...plan, localAt }) })
    const callbackMs = callback_seconds * 1_000
    const moved = moveMailing(db, id, ['draft', 'held'], 'scheduled', {
      scheduled_at: Math.max(begins, now),
      held_by: null,
      held_note: null,
      wish,
      callback_until: hostNow + callbackMs,
    })
    if (!moved) return { refused: 'This mailing has just changed. Look again.' }
    return { scheduledAt: Math.max(begins, now), callbackMs }
  })
}

/** Makes a scheduled or held mailing a draft again: nothing of it has gone out. False where it is neither, or has begun. */
export function callBack(db: Database, id: number): boolean {
  return (
    mailingById(db, id)?.started_at === null &&
    moveMailing(db, id, ['scheduled', 'held'], 'draft', {
      scheduled_at: null,
      wish: null,
      callback_until: null,
      held_by: null,
      held_note: null,
    })
  )
}
