/** Signing in: second factors, how guessing is slowed, and whether a request comes from our own pages. */
export { countedFor, failedAgain, FREE, waitAfter } from './slowing'
export type { Failures } from './slowing'
export { comesFromHere } from './origin'
export type { Comes } from './origin'
export {
  plainRecoveryCode,
  recoveryCodes,
  totpAddress,
  totpCode,
  totpSecret,
  totpStep,
} from './totp'
