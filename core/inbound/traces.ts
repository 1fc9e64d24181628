import type { TokenKind } from '../delivery'
import type { ReceivedMail } from './mail'

/** A token in a message, and the place it stood at; it is still to be verified. */
export interface Trace {
  by: 'return path' | 'leave' | 'reply' | 'message' | 'feedback'
  kind: TokenKind
  token: string
}

/** What stands before the token in our addresses. All three carry the one of the return path. */
const local = [
  ['return path', 'b-'],
  ['leave', 'leave-'],
  ['reply', 'r-'],
] as const

/** Where servers write whom a message came to: the envelope's recipient before what its head says. */
const recipients = ['delivered-to', 'x-original-to', 'envelope-to', 'x-envelope-to', 'to', 'cc']

/**
 * The tokens by which a message says what it is about: the address it came to; the id of the message that came back;
 * what a report says of the original. An address alone (Original-Recipient) is not among them: anybody could write one,
 * and have somebody else suppressed.
 */
export function tracesIn(mail: ReceivedMail): Trace[] {
  const found: Trace[] = []
  const add = (by: Trace['by'], kind: TokenKind, token: string | undefined) => {
    if (token) found.push({ by, kind, token: token.toLowerCase() })
  }
  const to = recipients.flatMap((name) => mail.fields(name))
  for (const [by, before] of local)
    for (const address of to) add(by, 'bounce', tokenIn(address, before))
  add('message', 'message', tokenIn(mail.returned?.get('message-id'), '<'))
  const [feedback] = mail.report('feedback-report') ?? []
  add('feedback', 'bounce', tokenIn(feedback?.get('original-mail-from'), 'b-'))
  const [receipt] = mail.report('disposition-notification') ?? []
  add('message', 'message', tokenIn(receipt?.get('original-message-id'), '<'))
  for (const id of [...mail.fields('in-reply-to'), ...mail.fields('references')])
    add('message', 'message', tokenIn(id, '<'))
  return found
}

function tokenIn(text: string | undefined, before: string): string | undefined {
  return new RegExp(`(?:^|[^a-z0-9.-])${before}([a-z2-7]{20,64})@`, 'i').exec(` ${text ?? ''}`)?.[1]
}
