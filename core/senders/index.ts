/** Whom mail comes from, and where answers to it go. */
export { accountsSender, localProblem, readOwnSender, repliesProblem, senderWith } from './sender'
export type { LetterSender, OwnSender, Replies, RepliesGo } from './sender'
