/** For how long what is known of people is kept, and why. */
export { daysKept, retention } from './retention'
export type { Retention, RetentionKey } from './retention'
