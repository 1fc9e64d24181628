/**
 * What a count means, once: delivered, opened, clicked, left, bounced and complained, as plain data and as SQL; and the
 * limits, windows and quantile that they are judged by.
 */
export { isCounted, isIn, recipientsOf, statesOf, totalOf } from './counts'
export type { ActCount, ActTimes, Count, StateCount } from './counts'
export { isCountedSql, sumSql, totalSql, totalWords } from './sql'
export { limits } from './limits'
export {
  MACHINE_OPENS_WITHIN,
  MONEY_WINDOW,
  SCANNER_CLICKS_WITHIN,
  STANDING_MONTH,
  STANDING_WEEK,
} from './windows'
export { Z95 } from './confidence'
export { pulseBar } from './pulse'
export type { PulseBar } from './pulse'
export { deviceOf, devices, programOf, programs } from './agents'
export type { Device, Program } from './agents'
