import { readTagList } from './tag-list'

/** What the texts at a selector make of signatures like ours: rsa-sha256, of the domain itself. */
export interface KeyVerdict {
  verifies: boolean
  words: string
}

/**
 * Whether signatures made with a key verify by what is published (RFC 6376, 3.6.1).
 * @param texts All that stand at `SELECTOR._domainkey.DOMAIN`; not empty.
 * @param publicKey Base64 of the key's SubjectPublicKeyInfo.
 */
export function judgeKey(texts: readonly string[], publicKey: string): KeyVerdict {
  const fails = (words: string): KeyVerdict => ({ verifies: false, words })
  if (texts.length > 1)
    return fails('More than one text stands there, and which of them is the key is not said.')
  const tags = readTagList(texts[0]!)
  const key = tags?.get('p')?.replaceAll(/\s+/g, '')
  if (!tags || key === undefined) return fails('What stands there is no key.')
  if (key === '') return fails('The key was revoked (p= is empty).')
  const version = tags.get('v')
  if (version !== undefined && version !== 'DKIM1')
    return fails(`It says v=${short(version)}; providers know DKIM1 alone, in capitals.`)
  const kind = tags.get('k') ?? 'rsa'
  if (kind !== 'rsa')
    return fails(`It says that the key is of the kind ${short(kind)}; letters are signed with rsa.`)
  if (!lists(tags.get('h') ?? 'sha256', ['sha256']))
    return fails(
      `It allows only ${short(tags.get('h')!)} (h=); letters are signed with sha256, which it must name.`,
    )
  if (!lists(tags.get('s') ?? '*', ['*', 'email']))
    return fails(`It says that the key is for ${short(tags.get('s')!)} (s=), not for mail.`)
  if (key !== publicKey) return fails('Another key is there, so every signature fails.')
  return {
    verifies: true,
    words: lists(tags.get('t') ?? '', ['y'])
      ? 'The key that signs your letters is there, marked as being tried (t=y): take that out when it works.'
      : 'The key that signs your letters is there.',
  }
}

/** Whether a list separated by colons names one of some words. */
const lists = (value: string, words: readonly string[]) =>
  value.split(':').some((one) => words.includes(one.trim()))

/** What was found is shown as it is, but not all of it. */
const short = (text: string) => (text.length > 20 ? `${text.slice(0, 20)}…` : text)
