/** Where replies go: kept here and passed on to the sender; or to the sender's own address, past us. */
export type RepliesGo = 'kept' | 'sender'

/** The same for one mailing, or to an address of its own. */
export type Replies = RepliesGo | `${string}@${string}`

/** Whom a mailing or the mail of a sequence comes from; what is empty is as the account has it. */
export interface OwnSender {
  name: string
  /** What stands before the @; the domain is always the account's, which is the one that signs. */
  local: string
  replies: Replies | ''
}

export const accountsSender: OwnSender = { name: '', local: '', replies: '' }

/** What marks the addresses that we read ourselves: nobody sends as one of them. */
const ours = /^(?:b|r|leave)-/i

/** What is wrong with what stands before the @, in a sentence; null where nothing is. */
export function localProblem(local: string): string | null {
  if (local === '') return null
  if (local.length > 64) return 'At most 64 characters before the @.'
  if (!/^[a-z0-9!#$%&'*+/=?^_{|}~-]+(?:\.[a-z0-9!#$%&'*+/=?^_{|}~-]+)*$/i.test(local))
    return 'Letters, digits, and single dots between them; no spaces and no @.'
  if (ours.test(local)) return 'Addresses that begin so are used for bounces and replies.'
  return null
}

/** What is wrong with where replies go, in a sentence; null where nothing is. */
export function repliesProblem(replies: string): string | null {
  if (['', 'kept', 'sender'].includes(replies)) return null
  return /^[^\s@<>",;:]{1,64}@[^\s@<>",;:]+\.[^\s@<>",;:]+$/.test(replies) && replies.length <= 254
    ? null
    : 'This is no address: it needs one @ and a domain, and no spaces.'
}

/** A sender from outside; what is missing or wrong in it is as the account has it. */
export function readOwnSender(json: unknown): OwnSender {
  const given = (typeof json === 'object' && json !== null ? json : {}) as Record<string, unknown>
  const text = (value: unknown, most: number) =>
    typeof value === 'string'
      ? value
          .replace(/[\r\n\0]+/g, ' ')
          .trim()
          .slice(0, most)
      : ''
  const local = text(given.local, 65)
  const replies = text(given.replies, 255)
  return {
    name: text(given.name, 120),
    local: localProblem(local) ? '' : local,
    replies: repliesProblem(replies) ? '' : (replies as OwnSender['replies']),
  }
}

/** Whom a letter comes from, and where answers to it go. */
export interface LetterSender {
  name: string
  address: string
  replies: Replies
}

/** The account's sender with what a mailing, or its sequence, has of its own. */
export function senderWith(usual: LetterSender, own: OwnSender): LetterSender {
  const domain = usual.address.slice(usual.address.lastIndexOf('@') + 1)
  return {
    name: own.name || usual.name,
    address: own.local ? `${own.local}@${domain}` : usual.address,
    replies: own.replies || usual.replies,
  }
}
