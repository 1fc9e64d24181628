import { liveEngines } from '../database/heartbeat'
import { claimsBecomeUncertain } from '../database/claims'
import { DEAD_AFTER, type Work } from './engine'

/** What dead engines had in conversation becomes uncertain, to be shown to the user. */
export const recoverClaims: Work = ({ db, id, clock, hostClock, log, settings }) => {
  const live = [...liveEngines(settings.data, hostClock(), DEAD_AFTER), id]
  const lost = claimsBecomeUncertain(db, live, clock())
  if (lost) log.warn({ recipients: lost }, 'recipients of a dead engine are uncertain')
  return false
}
