import { generateKeyPairSync, randomBytes } from 'node:crypto'
import { defaultLetterhead, readLetterhead, type Letterhead } from '../../core/letters'
import type { FrequencyCap } from '../../core/dispatch'
import type { QuietHours } from '../../core/time'
import { one, preparedOnce, q, run, type Database } from '../query'
import { seal, unseal } from '../sealed'
import { markOf } from '../versions'
import type { Selectable } from 'kysely'
import type { Schema } from '../schema'

export type Account = Omit<Selectable<Schema['account']>, 'letterhead'> & { letterhead: Letterhead }

/** What one chooses about an account; the rest is made with it. */
export type AccountSettings = Pick<
  Selectable<Schema['account']>,
  | 'name'
  | 'zone'
  | 'currency'
  | 'sender_name'
  | 'sender_address'
  | 'postal_address'
  | 'pace_per_minute'
  | 'cap_mailings'
  | 'cap_days'
  | 'quiet_from'
  | 'quiet_to'
  | 'callback_seconds'
  | 'replies'
  | 'language'
>

type Usual =
  | 'cap_mailings'
  | 'cap_days'
  | 'quiet_from'
  | 'quiet_to'
  | 'callback_seconds'
  | 'replies'
  | 'language'

/** The account, or null before the first visit. */
export function readAccount(db: Database): Account | null {
  const row = theOne(db).one({})
  return row
    ? {
        ...row,
        letterhead: readLetterhead(JSON.parse(row.letterhead)),
        token_key: unseal(db, row.token_key),
        dkim_private_key: unseal(db, row.dkim_private_key),
      }
    : null
}
const theOne = preparedOnce<object, Selectable<Schema['account']>>(() =>
  q.selectFrom('account').selectAll(),
)

/** How many messages a minute the account allows as it stands; null: as fast as the mail server takes them. */
export function paceOf(db: Database): number | null {
  return one(db, q.selectFrom('account').select('pace_per_minute'))?.pace_per_minute ?? null
}

/** How much mail one person gets at most; null: as much as there is. */
export function frequencyCap(db: Database): FrequencyCap | null {
  const row = one(db, q.selectFrom('account').select(['cap_mailings', 'cap_days']))
  return row && row.cap_mailings !== null
    ? { mailings: row.cap_mailings, days: row.cap_days }
    : null
}

/** When sequences write nothing, by the account's clock; null: they always may. */
export function quietHours(db: Database): QuietHours | null {
  const row = one(db, q.selectFrom('account').select(['quiet_from as from', 'quiet_to as to']))
  return row && row.from !== null && row.to !== null ? { from: row.from, to: row.to } : null
}

/** A private key for DKIM, as PEM: RSA with 2048 bits (RFC 8301). */
export function newDkimKey(): string {
  const { privateKey } = generateKeyPairSync('rsa', { modulusLength: 2048 })
  return privateKey.export({ type: 'pkcs8', format: 'pem' }) as string
}

/** Makes the account, with a key for its tokens and one for DKIM. */
export function createAccount(
  db: Database,
  settings: Omit<AccountSettings, Usual> & Partial<Pick<AccountSettings, Usual>>,
  now: number,
  letterhead: Partial<Letterhead> = {},
  dkimKey = newDkimKey(),
) {
  run(
    db,
    q.insertInto('account').values({
      cap_mailings: null,
      cap_days: 7,
      quiet_from: null,
      quiet_to: null,
      ...settings,
      id: 1,
      letterhead: JSON.stringify({ ...defaultLetterhead, ...letterhead }),
      token_key: seal(db, randomBytes(32).toString('hex')),
      dkim_selector: 'satchel1',
      dkim_private_key: seal(db, dkimKey),
      created_at: now,
    }),
  )
}

/** What of the account is set by hand, with the mark by which two who change it are told apart. */
export function settingsOf(account: Account) {
  const {
    name,
    zone,
    currency,
    sender_name,
    sender_address,
    postal_address,
    pace_per_minute,
    cap_mailings,
    cap_days,
    quiet_from,
    quiet_to,
    callback_seconds,
    replies,
    language,
  } = account
  const settings = {
    ...{ name, zone, currency, sender_name, sender_address, postal_address },
    ...{ pace_per_minute, cap_mailings, cap_days, quiet_from, quiet_to },
    ...{ callback_seconds, replies, language },
  }
  return { ...settings, version: markOf(settings) }
}

export function updateAccount(db: Database, settings: Partial<AccountSettings>) {
  if (Object.keys(settings).length)
    run(db, q.updateTable('account').set(settings).where('id', '=', 1))
}

/** Changes how letters look; every letter that has not gone out follows. */
export function saveLetterhead(db: Database, letterhead: Letterhead) {
  run(db, q.updateTable('account').set({ letterhead: JSON.stringify(letterhead) }))
}
