/** What goes out on which day, or went, and how much mail each day brings to people. */
export { mailingsBetween, timeOf } from './between'
export { closeMail } from './close-mail'
export { loadByDay } from './load'
export { sequenceDays } from './sequence-days'
export type { DayLoad } from './load'
