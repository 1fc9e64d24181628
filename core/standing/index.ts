/** Standing: what mailbox providers make of the sender, and how alive the list is. */
export {
  engagement,
  keennessOf,
  tierFrom,
  tierOf,
  tiers,
  weights,
  withAct,
  HALF_LIFE_DAYS,
} from './engagement'
export type { EngagedAct, Keenness, Tier } from './engagement'
export { standingRates } from './rates'
