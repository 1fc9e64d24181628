/** What came of a mailing: verdicts on opens and clicks, rates with their intervals, the hourly curve. */
export { wilson } from './wilson'
export type { Interval } from './wilson'
export { judgeOpen, judgeClick } from './verdict'
export type { Verdict } from './verdict'
export { ratesOf } from './rates'
export type { Totals, Rate } from './rates'
export { fillHours, halfTime } from './hours'
export type { HourCount } from './hours'
