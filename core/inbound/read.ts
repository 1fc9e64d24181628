import type { Failure } from '../delivery'
import { isAutomatic, isChallenge, isSurelyAutomatic } from './automatic'
import { readFreeForm } from './free-form'
import { readMail, type ReceivedMail } from './mail'
import { isReceipt } from './receipt'
import { readFeedback } from './feedback'
import { readStatusNotification } from './status-notification'
import { tracesIn, type Trace } from './traces'

/**
 * What a message that came to one of our addresses is. Nothing is a bounce because of where it came to: only what says so.
 * `answer` is what the server said, with its status, as far as it can be told.
 */
export type Reading =
  | { kind: 'bounced' | 'delayed'; failure: Failure; answer: string }
  /** A reader reported the letter; or something else is told of it that changes nothing. */
  | { kind: 'complaint' | 'feedback'; type: string }
  | { kind: 'unsubscribing' | 'automatic' | 'receipt' | 'noted' }
  /** Written by a person. */
  | { kind: 'reply'; from: { name: string; address: string }; subject: string; text: string }

/** A message that came in: what it is, and the marks by which it can be told whose letter it is about, the best first. */
export interface Inbound {
  reading: Reading
  traces: Trace[]
}

/** Reads a message that came to one of our addresses; `raw` is all of it, one character for each byte. */
export async function readInbound(raw: string): Promise<Inbound> {
  const mail = await readMail(raw)
  const traces = tracesIn(mail)
  return { reading: readingOf(mail, traces), traces }
}

/** The first that it says of itself, by its machine-readable parts before its words. */
function readingOf(mail: ReceivedMail, traces: readonly Trace[]): Reading {
  const told = readFeedback(mail) ?? readStatusNotification(mail)
  if (told) return told
  if (isReceipt(mail)) return { kind: 'receipt' }
  if (traces.some(({ by }) => by === 'leave')) return { kind: 'unsubscribing' }
  if (isSurelyAutomatic(mail) || isChallenge(mail)) return { kind: 'automatic' }
  const bounce = readFreeForm(mail)
  if (bounce) return bounce
  if (isAutomatic(mail)) return { kind: 'automatic' }
  const { from, subject, text } = mail
  return from.address && text.trim()
    ? { kind: 'reply', from, subject, text: text.trim() }
    : { kind: 'noted' }
}
