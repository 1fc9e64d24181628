import { liveEngines, takeDeaths } from '../database/jobs'
import { claimsBecomeUncertain } from '../database/sending'
import { holdMailing, mailingById, moveMailing, noteDeath } from '../database/mailings'
import { DEAD_AFTER, type Work } from './engine'

/**
 * What dead engines had in conversation becomes uncertain, to be shown to the user. Where two died at the same of a
 * mailing, that mailing is held, so that the others go on.
 */
export const recoverClaims: Work = ({ db, id, clock, hostClock, log, settings }) => {
  const live = [...liveEngines(settings.data, hostClock(), DEAD_AFTER), id]
  const lost = claimsBecomeUncertain(db, live, clock())
  if (lost) log.warn({ recipients: lost }, 'recipients of a dead engine are uncertain')
  for (const { mailing: id, what } of takeDeaths(settings.data, live)) {
    const mailing = mailingById(db, id)
    if (!mailing) continue
    if (mailing.died_at !== what) {
      noteDeath(db, id, what)
      continue
    }
    const note =
      'Satchel’s engine ended twice while it made this letter, so it is held and everything else goes on. Change the letter, or write to those who run Satchel.'
    const held = { held_by: 'fault', held_note: note } as const
    if (!holdMailing(db, id, held, clock())) moveMailing(db, id, ['scheduled'], 'held', held)
    log.error({ mailing: id, what }, 'held: engines died at it')
  }
  return false
}
