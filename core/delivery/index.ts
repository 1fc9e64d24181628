/**
 * Getting a letter to its people: the states of a recipient, who drops out and why, signed
 * tokens, the bytes of a message, retries, and what servers answer and report.
 */
export { recipientStates, mayMove, isFinal, openStates } from './states'
export type { RecipientState } from './states'
export { waterfall, waterfallTests } from './waterfall'
export type { WaterfallStep, WaterfallTest } from './waterfall'
export { addressed, makeToken, readToken } from './token'
export type { Addressed } from './token'
export type { TokenKey, TokenKind } from './token'
export { mouldMessage, pourMessage, withLinksFrom } from './message'
export type {
  Fill,
  MessageMould,
  MessageParts,
  PouredMessage,
  Slot,
  Recipient,
  Sender,
} from './message'
export { encodeHeaderText, encodeAddressName } from './header-text'
export { quotedPrintable } from './quoted-printable'
export { nextAttempt, GIVE_UP_AFTER } from './retry'
export { readAnswer } from './answer'
export type { Answer } from './answer'
export { deadAfter, failureOf, failures, isFailure, statusIn } from './failures'
export type { Failure } from './failures'
export { providerPacer, takeFromBucket, refill } from './pace'
export type { Bucket, ProviderPacer } from './pace'
export { signMessage } from './dkim'
export { bytesOf, rawMessage, textOf } from './raw-message'
export type { RawMessage } from './raw-message'
export type { SignText } from './dkim'
export { isJunkFolder, nextLook, openTrials, providerSays, TRIAL_ENDS } from './trial'
export type { ProviderSays, TrialState } from './trial'
export { shareOut } from './shares'
export type { Claimant } from './shares'
