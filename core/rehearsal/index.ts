/**
 * Rehearsal: people drawn from the real audience walk through a sequence’s map in virtual time, each with a life by chance
 * that is estimated from what they did so far. Nothing is sent, and nothing is kept.
 */
export { linkIn } from './audience'
export type { Audience, Customs, Drawn, Often, Soon } from './audience'
export { habitsOf } from './habits'
export type { Habits } from './habits'
export { lifeByChance } from './life'
export type { Life } from './life'
export { walk } from './walk'
export type { Walked, Walker } from './walk'
export { rehearse } from './rehearse'
export type { Draw, Rehearsing } from './rehearse'
export { walkOne } from './one'
export type { Decisions, Passing, Reaction } from './one'
export { DRAWS, together } from './bands'
export type { Band, Rehearsal } from './bands'
