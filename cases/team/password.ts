import { Hash } from '@adonisjs/hash'
import { Scrypt } from '@adonisjs/hash/drivers/scrypt'

const hash = new Hash(new Scrypt({}))

/** What is kept of a password: scrypt (RFC 7914) with a salt of its own, as a PHC string. */
export const hashPassword = (password: string): Promise<string> => hash.make(password)

/** Nobody's password, of the same cost as anybody's. */
let nobodys: Promise<string> | null = null

/**
 * Whether a password is the one that was kept. Where nobody is known (undefined), or nobody can sign in by a password (`!`),
 * it takes the same work, so that its time tells nothing.
 */
export async function isPassword(kept: string | undefined, password: string): Promise<boolean> {
  nobodys ??= hashPassword('nobody has this password')
  if (kept?.startsWith('$')) return hash.verify(kept, password).catch(() => false)
  await hash.verify(await nobodys, password)
  return false
}
