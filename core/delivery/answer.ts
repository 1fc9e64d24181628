import { failureOf, failures, statusIn, type Failure } from './failures'

/** What a mail server's refusal means for one recipient. */
export interface Answer {
  /** Come again later, or never. */
  outcome: 'deferred' | 'failed'
  /** Why, as far as it says. */
  failure: Failure
  /** In plain words. */
  words: string
}

/** Reads a refusal: the SMTP reply code (RFC 5321) and its text, with or without an enhanced status code. */
export function readAnswer(code: number, text: string): Answer {
  const status = statusIn(text)
  const failure = failureOf(status, `${code} ${text}`)
  return code >= 400 && code < 500
    ? { outcome: 'deferred', failure, words: wordsForNow(status, failure) }
    : { outcome: 'failed', failure, words: failures[failure].words }
}

/** What is said while it may still go well. */
function wordsForNow(status: string | null, failure: Failure): string {
  if (failure === 'mailbox full' || failure === 'too large') return failures[failure].words
  if (status?.startsWith('4.7.')) return 'The provider asks us to slow down.'
  if (status?.startsWith('4.4.')) return 'The provider could not be reached.'
  return 'The provider asks us to try again later.'
}
