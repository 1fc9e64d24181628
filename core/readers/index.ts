/** What readers decide by themselves: how much mail they get, and what they changed on their own page. */
export { isPaused, maySince, pauseUntil, pauseWeeks, WEEKLY, type OwnLimits } from './limits'
