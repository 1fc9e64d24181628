import { localInputToTime, timeLabel } from '~~/core/time'
import { transact } from '~~/database'
import { moveMailing, updateMailing, wishOf } from '~~/database/mailings'
import { firstLocalTime, planOf } from '~~/database/parts'
import { moveInput } from '~~/shared/mailing-inputs'

/**
 * Moves a scheduled mailing to another day or time: what is moved is the wish, a day and a time on the wall (on each
 * reader's own where it goes by their clocks). Answers the wish before, so that exactly that can be restored.
 */
export default defineEventHandler(async (event) => {
  const { wish } = await readInput(event, moveInput)
  const { db, clock } = satchel()
  const { zone } = account()
  return transact(db, () => {
    const mailing = unsentMailingOf(event)
    dispatchedMailingOf(event)
    const plan = planOf(mailing)
    const was = wishOf(mailing, zone)
    if (mailing.state !== 'scheduled' || !was) throw refused('Only what is scheduled can be moved.')
    const local = plan.pace === 'local-time'
    const at = local
      ? firstLocalTime(db, { ...plan, localAt: wish }, zone)
      : localInputToTime(wish, zone)
    if (at === null) throw refused('This is no day and time.')
    if (at <= clock())
      throw refused(
        `It is ${timeLabel(clock(), zone)} already. Choose a time that is still to come.`,
      )
    if (!moveMailing(db, mailing.id, ['scheduled'], 'scheduled', { scheduled_at: at, wish }))
      throw refused('This mailing has just changed. Look again.')
    if (local) updateMailing(db, mailing.id, { plan: JSON.stringify({ ...plan, localAt: wish }) })
    return { wish, at, was }
  })
})
