/** What a mail server's refusal means for one recipient. */
export interface Answer {
  /** Come again later, or never. */
  outcome: 'deferred' | 'failed'
  /** Whether the address itself is dead, so that it is suppressed. */
  deadAddress: boolean
  /** Enhanced status code (RFC 3463), where one was given: "5.1.1". */
  status: string | null
  /** In plain words. */
  words: string
}

const meanings: [RegExp, string, boolean?][] = [
  [/^5\.1\.[1236]$|^5\.1\.10$/, 'There is no such mailbox.', true],
  [/^5\.2\.1$/, 'The mailbox is closed.', true],
  [/^\d\.2\.2$/, 'The mailbox is full.'],
  [/^\d\.2\.3$|^\d\.3\.4$/, 'The message is too large for this mailbox.'],
  [/^4\.7\.\d+$/, 'The provider asks us to slow down.'],
  [/^5\.7\.\d+$/, 'The provider refuses our mail by its policy.'],
  [/^4\.4\.\d+$/, 'The provider could not be reached.'],
  [/^4\.\d+\.\d+$/, 'The provider asks us to try again later.'],
]

/**
 * Reads a refusal: the SMTP reply code (RFC 5321) and its text, with or without an enhanced status
 * code. Where the text names no code, usual phrases are looked for.
 */
export function readAnswer(code: number, text: string): Answer {
  const status = /\b([245]\.\d{1,3}\.\d{1,3})\b/.exec(text)?.[1] ?? null
  const outcome = code >= 400 && code < 500 ? 'deferred' : 'failed'
  const meaning = status && meanings.find(([pattern]) => pattern.test(status))
  if (meaning)
    return { outcome, status, words: meaning[1], deadAddress: outcome === 'failed' && !!meaning[2] }
  if (outcome === 'failed' && saysNoSuchUser(text))
    return { outcome, status, words: 'There is no such mailbox.', deadAddress: true }
  const words =
    outcome === 'deferred'
      ? 'The provider asks us to try again later.'
      : 'The provider refused the message.'
  return { outcome, status, words, deadAddress: false }
}

function saysNoSuchUser(text: string): boolean {
  return /(no such|unknown|invalid|non-?existent) (user|mailbox|recipient|address)|user unknown|(does not|doesn't) exist/i.test(
    text,
  )
}
