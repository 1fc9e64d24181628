/**
 * The account itself: its settings and key, its users and their sessions, who did what, how long things are kept,
 * and the clock.
 */
export {
  createAccount,
  frequencyCap,
  quietHours,
  paceOf,
  newDkimKey,
  readAccount,
  saveLetterhead,
  settingsOf,
  updateAccount,
} from './account'
export type { Account, AccountSettings } from './account'
export { auditLog, noteDeed } from './audit'
export { clockOf, readClock, worldFollowed, worldFollowedTo, writeClock } from './clock'
export {
  domainCheck,
  domainsToCheck,
  saveDomainCheck,
  senderDomain,
  signingKey,
} from './domain-checks'
export { deleteSomeOver, importFilesInUse } from './retention'
export {
  beginSession,
  confirmSession,
  endSession,
  endSessionsOf,
  sessionGoesOn,
  sessionsOf,
  useSessionOf,
} from './sessions'
export type { Session } from './sessions'
export {
  addUser,
  changeRole,
  firstUser,
  hasUsers,
  makeReset,
  passwordHashOf,
  recoveryCodesLeft,
  removeSecondFactor,
  removeUser,
  secondFactorOf,
  setPassword,
  setSecondFactor,
  useRecoveryCode,
  useStep,
  userByAddress,
  userById,
  userOfReset,
  teamAddresses,
  usersOf,
} from './users'
export type { User } from './users'
