import { happeningWords, howLong, planProblems, type HappeningAnswer } from '~~/core/dispatch'
import { timeLabel } from '~~/core/time'
import { planOf } from '~~/database/mailings'

/** At the time `at` (ms) or, without it, now. */
export default defineEventHandler(async (event): Promise<HappeningAnswer> => {
  const mailing = dispatchedMailingOf(event)
  const asked = Number(getQuery(event).at)
  const at = Number.isSafeInteger(asked) && asked > 0 ? asked : null
  const { clock } = satchel()
  const { zone } = account()
  const found = await askLong('happening', { mailingId: mailing.id, at, now: clock() })
  const { happening = null, fingerprint = null } = found ?? {}
  return {
    sentence: happening && happeningWords(happening, (time) => timeLabel(time, zone)),
    happening,
    fingerprint,
    takes: happening && howLong(happening),
    problems: planProblems(planOf(mailing)),
  }
})
