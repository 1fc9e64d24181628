import { sendOff } from '~~/cases/mailings'
import { isAtLeast } from '~~/core/team'
import { timeLabel } from '~~/core/time'
import { dispatchInput } from '~~/shared/mailing-inputs'

/** Sends a mailing off: now (`at` null), or at the time that is set; it hands back what was shown of what will happen. */
export default defineEventHandler(async (event) => {
  const { id } = dispatchedMailingOf(event)
  unsentMailingOf(event)
  const { at, seen } = await readInput(event, dispatchInput)
  const { db, clock, hostClock, sends } = satchel()
  if (!sends)
    throw refused(
      'No mail server is set, so nothing can go out. Start Satchel with SATCHEL_SMTP_URL.',
    )
  if (at !== null && at <= clock())
    throw createError({
      statusCode: 422,
      message: `It is ${timeLabel(clock(), account().zone)} already. Choose a time that is still to come.`,
      data: { fields: { at: 'This time has passed.' } },
    })
  // Everybody is counted apart, so that nobody waits for it.
  const happens = await askLong('happening', { mailingId: id, at, now: clock() })
  const people = happens?.fingerprint.people ?? null
  const approvedOnly = !isAtLeast(me(event).user.role, 'editor')
  const times = { at, now: clock(), hostNow: hostClock() }
  const done = sendOff(db, id, { ...times, seen, people, approvedOnly })
  if ('refused' in done) throw refused(done.refused)
  if ('overtaken' in done) throw overtaken(done.overtaken)
  return done
})
