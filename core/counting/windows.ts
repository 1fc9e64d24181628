import { DAY } from '../time'

/** Money belongs to the last mailing that was clicked within this long before the order. */
export const MONEY_WINDOW = 5 * DAY

/** An open so soon after acceptance is a machine's, where its program runs in a data centre. */
export const MACHINE_OPENS_WITHIN = 2_000

/** Who follows every link of a letter within this long is a scanner. */
export const SCANNER_CLICKS_WITHIN = 5_000

/** Standing looks at the mail of so long. */
export const STANDING_WEEK = 7 * DAY
export const STANDING_MONTH = 30 * DAY
