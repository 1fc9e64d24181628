/**
 * Products picked for each reader: what they looked at, what goes with what they bought, what sells best, what is
 * new. Out of the orders and looks themselves, item to item; never what somebody has already.
 */
export { neighboursOf } from './neighbours'
export type { Neighbours } from './neighbours'
export { pickProducts, pickWays } from './pick'
export type { PickSettings, PickWay, Product, ReaderFacts } from './pick'
