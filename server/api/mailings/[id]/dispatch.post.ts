import { changedSince } from '~~/core/dispatch'
import { timeLabel, timeToLocalInput } from '~~/core/time'
import { transact } from '~~/database'
import { fingerprintOf } from '~~/database/happening'
import { mailingById, moveMailing, updateMailing } from '~~/database/mailings'
import { firstLocalTime, planOf } from '~~/database/parts'
import { dispatchBlockers } from '~~/database/proof'
import { dispatchInput } from '~~/shared/mailing-inputs'

/**
 * Sends a mailing off: now (`at` null), or at the time that is set. It hands back what was shown of what will happen;
 * where that is not so any more, it is refused and says what has changed. Blockers hold it. For some seconds it can be
 * called back before anything goes out.
 */
export default defineEventHandler(async (event) => {
  const { id } = dispatchedMailingOf(event)
  unsentMailingOf(event)
  const { at, seen } = await readInput(event, dispatchInput)
  const { db, clock, hostClock, sends } = satchel()
  if (!sends)
    throw refused(
      'No mail server is set, so nothing can go out. Start Satchel with SATCHEL_SMTP_URL.',
    )
  const { zone, callback_seconds } = account()
  if (at !== null && at <= clock())
    throw createError({
      statusCode: 422,
      message: `It is ${timeLabel(clock(), zone)} already. Choose a time that is still to come.`,
      data: { fields: { at: 'This time has passed.' } },
    })
  const now = await askLong('happening', { mailingId: id, at, now: clock() })
  return transact(db, () => {
    const mailing = unsentMailingOf(event)
    if (mailing.state === 'scheduled')
      throw refused('It is scheduled already. Take it back to a draft to change that.')
    const blockers = dispatchBlockers(db, mailing, clock())
    if (blockers.length || !now) throw refused(`The proof holds it: ${blockers.join('; ')}.`)
    const changed = changedSince(seen, fingerprintOf(db, mailing, at, now.fingerprint.people))
    if (changed.length)
      throw overtaken(
        `Nothing was sent: ${changed.join(', ')} changed since this was shown. Look at it again, then send it.`,
      )
    const plan = planOf(mailing)
    if (plan.pace === 'local-time' && at === null)
      throw refused('Set the time that it is to be on each reader’s clock.')
    // It begins where that time comes first; each gets it when it comes to them.
    const wish = at === null ? null : timeToLocalInput(at, zone)
    const localAt = plan.pace === 'local-time' ? wish : null
    const begins =
      localAt === null ? (at ?? clock()) : firstLocalTime(db, { ...plan, localAt }, zone)!
    if (localAt !== null) updateMailing(db, id, { plan: JSON.stringify({ ...plan, localAt }) })
    const callback_until = hostClock() + callback_seconds * 1_000
    const moved = moveMailing(db, id, ['draft', 'held'], 'scheduled', {
      scheduled_at: Math.max(begins, clock()),
      held_by: null,
      held_note: null,
      wish,
      callback_until,
    })
    if (!moved) throw refused('This mailing has just changed. Look again.')
    return { scheduledAt: mailingById(db, id)!.scheduled_at, callbackMs: callback_seconds * 1_000 }
  })
})
