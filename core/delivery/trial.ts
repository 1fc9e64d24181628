/** What became of a letter in one mailbox to which it was sent to try. */
export type TrialState =
  | 'waiting'
  | 'sending'
  /** It has gone out and was not seen yet. */
  | 'sent'
  | 'inbox'
  | 'junk'
  /** Nothing came in {@link TRIAL_ENDS}. */
  | 'missing'
  /** The provider did not take it. */
  | 'refused'
  /** The mailbox could not be opened. */
  | 'closed'

export const openTrials: readonly TrialState[] = ['waiting', 'sending', 'sent']

/** How long a letter is looked for in a mailbox, ms. */
export const TRIAL_ENDS = 5 * 60_000

/** What a provider says of who sent a message; null where it says nothing. */
export interface ProviderSays {
  spf: string | null
  dkim: string | null
  dmarc: string | null
  /** Its own words about why it trusts the message or not. */
  words: string | null
}

/** When a mailbox is looked into again, `since` ms after the message went out: soon at first, then less often. Ms. */
export function nextLook(since: number): number {
  return Math.min(30_000, Math.max(1_000, since / 2))
}

/**
 * Reads what a provider wrote above a message: the results of authentication (RFC 8601, the topmost header counts, as it
 * is the provider's own) and notes of its filter, which have no standard name.
 */
export function providerSays(headers: string): ProviderSays {
  const unfolded = headers.replace(/\r?\n[ \t]+/g, ' ')
  const header = (name: string) => new RegExp(`^(?:${name}):\\s*(.*)$`, 'im').exec(unfolded)?.[1]
  const results = (header('Authentication-Results') ?? '').replace(/\([^()]*\)/g, '')
  const result = (method: string) =>
    new RegExp(`(?:^|;)\\s*${method}\\s*=\\s*([a-z]+)`, 'i').exec(results)?.[1]?.toLowerCase() ??
    null
  const words = header('[\\w-]*(?:Filter|Spam)[\\w-]*(?:Notes|Status|Report|Reasons?)')
  return {
    spf: result('spf'),
    dkim: result('dkim'),
    dmarc: result('dmarc'),
    words: words?.trim().slice(0, 300) || null,
  }
}

/** Whether a folder is where a provider puts what it does not trust: by what it says of it (RFC 6154), else by its name. */
export function isJunkFolder({ path, use }: { path: string; use: string | null }): boolean {
  return use ? use === '\\Junk' : /^(?:.*[/.])?(?:junk|spam|bulk)\b/i.test(path)
}
