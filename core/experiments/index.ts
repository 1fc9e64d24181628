/**
 * Experiments with mailings: who is in which variant and who is held out, what a test can show, how it came out, and
 * what being mailed was worth. Numbers only; who was mailed and what they did comes from outside.
 */
export { slotOf, variantOf } from './assign'
export type { SlotUse } from './assign'
export { smallestDifference, FEWEST_A_VARIANT } from './power'
export { compareVariants, CLEAR, curvesOf } from './compare'
export type { Compared, Outcome, VariantResult } from './compare'
export { liftOf } from './lift'
export type { Lift } from './lift'
export { moneyThatWouldNotHaveCome } from './bootstrap'
export type { Beside, DecidedOn, TestResults, VariantCounts, WorthResults } from './results'
