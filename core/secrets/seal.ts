import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto'

/** AES-256 in Galois/Counter Mode (NIST SP 800-38D): 32 bytes of key, 12 of nonce, 16 of tag. */
const CIPHER = 'aes-256-gcm'
const NONCE = 12
const TAG = 16

/** Before a sealed text stands this, with the first characters of its key's name between; what lacks it is not sealed. */
const mark = (keyName: string) => `sealed:${keyName}:`

/** A key for sealing, by a name that tells it from others. */
export interface SealKey {
  name: string
  key: Buffer
}

/** A text that only the key's holder can read, and that nobody can change unnoticed. */
export function sealText(text: string, { name, key }: SealKey): string {
  const nonce = randomBytes(NONCE)
  const cipher = createCipheriv(CIPHER, key, nonce)
  const body = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()])
  return mark(name) + Buffer.concat([nonce, body, cipher.getAuthTag()]).toString('base64')
}

/**
 * A sealed text as it was; one that is not sealed, as those of earlier versions, is given back as it is. Throws where none
 * of the keys sealed it, or somebody changed it.
 */
export function unsealText(sealed: string, keys: readonly SealKey[]): string {
  const [, name] = /^sealed:(\w+):/.exec(sealed) ?? []
  if (name === undefined) return sealed
  const key = keys.find((one) => one.name === name)
  if (!key)
    throw new Error(
      'A secret in the database was sealed with a key that is not in the data folder (seal.key).',
    )
  const bytes = Buffer.from(sealed.slice(mark(name).length), 'base64')
  const decipher = createDecipheriv(CIPHER, key.key, bytes.subarray(0, NONCE))
  decipher.setAuthTag(bytes.subarray(-TAG))
  return decipher.update(bytes.subarray(NONCE, -TAG), undefined, 'utf8') + decipher.final('utf8')
}

export const isSealedWith = (sealed: string, { name }: SealKey): boolean =>
  sealed.startsWith(mark(name))
