/** Time as Satchel knows it: the clock everything is given, the practice clock, and calendar days of a zone. */
export type { Clock } from './clock'
export { HOUR, DAY, MINUTE } from './clock'
export { leapTo, practiceTime, nextLeap, withRate, practiceRates } from './practice-clock'
export type { PracticeClock } from './practice-clock'
export {
  dayStart,
  localDay,
  dayLabel,
  isZone,
  zones,
  addDays,
  hourOf,
  minuteOfDay,
  nextHour,
  sameHourAfter,
  timeLabel,
  localInputToTime,
  timeToLocalInput,
} from './zone'
export { anniversariesFrom, dayOf, isDay, nextDay, startOfDay } from './calendar'
export type { Day } from './calendar'
export { dateText, dayText, momentText, readDayText, readMomentText, readTimeText } from './typed'
export { afterQuiet } from './quiet'
export type { QuietHours } from './quiet'
export { daysLater, monthOf, monthsLater } from './month'
