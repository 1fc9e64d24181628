import { localInputToTime, timeLabel } from '../../core/time'
import { transact, type Database } from '../../database'
import {
  mailingById,
  moveMailing,
  updateMailing,
  wishOf,
  firstLocalTime,
  planOf,
} from '../../database/mailings'

/** `refused`: why it stays where it is. Else the wish now, when it goes, and the wish before, which restores it exactly. */
export type Moved = { refused: string } | { wish: string; at: number; was: string }

/**
 * Moves a scheduled mailing to another day or time. What is moved is the wish, a day and a time on the wall: in the
 * account's zone, or on each reader's own clock where it goes by those. So no hour is lost where the clocks change.
 * @param wish 'YYYY-MM-DDTHH:mm'
 */
export function moveWish(
  db: Database,
  mailingId: number,
  wish: string,
  zone: string,
  now: number,
): Moved {
  return transact(db, () => {
    const mailing = mailingById(db, mailingId)!
    const plan = planOf(mailing)
    const was = wishOf(mailing, zone)
    if (mailing.state !== 'scheduled' || !was)
      return { refused: 'Only what is scheduled can be moved.' }
    const local = plan.pace === 'local-time'
    const at = local
      ? firstLocalTime(db, { ...plan, localAt: wish }, zone)
      : localInputToTime(wish, zone)
    if (at === null) return { refused: 'This is no day and time.' }
    if (at <= now)
      return {
        refused: `It is ${timeLabel(now, zone)} already. Choose a time that is still to come.`,
      }
    if (!moveMailing(db, mailingId, ['scheduled'], 'scheduled', { scheduled_at: at, wish }))
      return { refused: 'This mailing has just changed. Look again.' }
    if (local) updateMailing(db, mailingId, { plan: JSON.stringify({ ...plan, localAt: wish }) })
    return { wish, at, was }
  })
}
