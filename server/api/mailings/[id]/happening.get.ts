import {
  happeningWords,
  howLong,
  planProblems,
  type Fingerprint,
  type Happening,
} from '~~/core/dispatch'
import { timeLabel } from '~~/core/time'
import { planOf } from '~~/database/mailings'

/** What will happen when the mailing is sent off, in one sentence, with what `Send` hands back of it. */
export interface HappeningAnswer {
  /** Null while there is nothing to say: it has no list. */
  sentence: string | null
  happening: Happening | null
  fingerprint: Fingerprint | null
  takes: { ms: number; waits: boolean } | null
  /** What has to be set first. */
  problems: string[]
}

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
