/** Tells the time as UTC milliseconds. Nothing else in Satchel asks what time it is. */
export type Clock = () => number

export const MINUTE = 60_000
export const HOUR = 60 * MINUTE
export const DAY = 24 * HOUR
