import { createHmac, randomBytes } from 'node:crypto'

/** What tells that a browser has signed in as somebody before: it says nothing else, and signs nobody in. */
export function knownDevice(userId: number): string {
  const nonce = randomBytes(16).toString('base64url')
  return `${nonce}.${markOf(nonce, userId)}`
}

export function isKnownDevice(cookie: string, userId: number): boolean {
  const [nonce = '', mark = ''] = cookie.slice(0, 200).split('.')
  return mark !== '' && sameSecret(mark, markOf(nonce, userId))
}

const markOf = (nonce: string, userId: number) =>
  createHmac('sha256', publicKey()).update(`device ${userId} ${nonce}`).digest('base64url')
