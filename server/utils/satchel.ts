import { createHash } from 'node:crypto'
import { openDatabase, type Database } from '~~/database'
import { readAccount, type Account, clockOf, readClock } from '~~/database/account'
import type { Clock } from '~~/core/time'

/** What the handlers work with: the database, the clock, and how this installation is set up. */
export interface Satchel {
  db: Database
  clock: Clock
  hostClock: Clock
  data: string
  url: string
  sends: boolean
  practice: boolean
  /** Opens the demo account without a password; only in the practice world. */
  enterKey: string | null
  /** With it the first owner shows that this Satchel is theirs; null: nobody can become one over the web. */
  setupCode: string | null
  /** The last part of the address at which mail servers' reports come in; null: nowhere. */
  reportsKey: string | null
}

let satchelOf: Satchel | null = null

/** The one Satchel of this process; opened at its first use. */
export function satchel(): Satchel {
  satchelOf ??= open()
  return satchelOf
}

function open(): Satchel {
  const data = process.env.SATCHEL_DATA
  if (!data) throw new Error('SATCHEL_DATA must name the data folder.')
  const db = openDatabase(data)
  const practice = readClock(db) !== null
  return {
    db,
    clock: clockOf(db, Date.now),
    hostClock: Date.now,
    data,
    url: (process.env.SATCHEL_URL || `http://127.0.0.1:${process.env.PORT || 3000}`).replace(
      /\/+$/,
      '',
    ),
    sends: !!process.env.SATCHEL_SMTP_URL,
    practice,
    enterKey: practice ? process.env.SATCHEL_ENTER_KEY || null : null,
    setupCode: plainSetupCode(process.env.SATCHEL_SETUP_CODE ?? '') || null,
    reportsKey: process.env.SATCHEL_REPORTS_KEY || null,
  }
}

/** A setup code as it is compared, however it was typed. */
export const plainSetupCode = (typed: string) => typed.toLowerCase().replace(/[^a-z0-9]/g, '')

let tokenKey: Buffer | null = null

/** What public tokens are read by. */
export const publicTokens = () => ({
  key: publicKey(),
  shortUpTo: (shortTokens ??= account().short_tokens_up_to),
})
let shortTokens: number | null = null

/** The key that signs public tokens. */
export function publicKey(): Buffer {
  tokenKey ??= Buffer.from(account().token_key, 'hex')
  return tokenKey
}

/** The account; only after the first visit has made it. */
export function account(): Account {
  const found = readAccount(satchel().db)
  if (!found)
    throw createError({
      statusCode: 409,
      message: 'There is no account yet. Open the first page to make one.',
    })
  return found
}

/** Compares two secrets in a time that tells nothing about them. */
export function sameSecret(given: string, wanted: string | null): boolean {
  if (!wanted) return false
  const digest = (text: string) => createHash('sha256').update(text).digest('hex')
  return digest(given) === digest(wanted)
}
