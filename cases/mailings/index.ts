/** What web and engine do with mailings: the proof, sending one off, moving one, what a letter weighs, the calendar. */
export { dispatchBlockers, goingOut, proofMailing } from './proof'
export { callBack, sendOff } from './send-off'
export { moveWish } from './move'
export { weigh } from './weigh'
export { iCalendar } from './i-calendar'
