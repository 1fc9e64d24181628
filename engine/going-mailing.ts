import {
  mouldMessage,
  providerPacer,
  withLinksFrom,
  type Bucket,
  type MessageMould,
} from '../core/delivery'
import { firstLinkOf } from '../core/letters'
import type { CompiledLetter } from '../core/letters/rendering'
import { readAccount, type Account } from '../database/account'
import { claimsOf, type Settled } from '../database/claims'
import { wholeLetterOf } from '../database/letterheads'
import { listById } from '../database/lists'
import type { Mailing } from '../database/mailings'
import { planOf } from '../database/parts'
import { pickerFor, type Picker } from '../database/picks'
import { readerValuesFor } from '../database/reader-values'
import { variantsOf } from '../database/variants'
import type { Engine } from './engine'
import { compileMailing } from './start-mailings'

/** Prepares a mailing to be sent, or to be gone on with after a restart. */
export async function beginMailing(engine: Engine, mailing: Mailing): Promise<GoingMailing> {
  const account = readAccount(engine.db)!
  const plan = planOf(mailing)
  const variants = variantsOf(engine.db, mailing.id)
  const letters = variants.length
    ? variants
    : [{ no: 0, letter_id: mailing.letter_id, sender_name: account.sender_name }]
  return {
    mailing,
    account,
    letters: await Promise.all(
      letters.map((variant) => prepare(engine, mailing, account, variant)),
    ),
    claims: claimsOf(engine.db, engine.id, mailing.id, providerPacer(plan.providers)),
    perMinute: plan.perMinute,
    bucket: { level: 0, at: 0 },
    inFlight: 0,
    outcomes: [],
  }
}

async function prepare(
  { db, settings, clock }: Engine,
  { id, list_id }: Mailing,
  account: Account,
  variant: { no: number; letter_id: number; sender_name: string },
): Promise<GoingLetter> {
  const { letter_id, sender_name: senderName } = variant
  const compiled = await compileMailing(
    db,
    { list_id, letter_id },
    account,
    settings.url,
    senderName,
  )
  const list = listById(db, list_id!)!
  const letter = wholeLetterOf(db, letter_id)
  const sender = {
    name: senderName,
    address: account.sender_address,
    url: settings.url,
    list: { key: list.key, name: list.public_name },
  }
  const parts = withLinksFrom(compiled.parts, firstLinkOf(variant.no))
  return {
    compiled,
    mould: mouldMessage(id, parts, sender, Buffer.from(account.token_key, 'hex')),
    senderName,
    picker: pickerFor(db, letter.document, settings.url, clock()),
    valuesFor: readerValuesFor(db, letter, list.id),
    listName: list.public_name,
  }
}

/** A mailing that is going out. */
export interface GoingMailing {
  mailing: Mailing
  account: Account
  /** What the messages of each variant are made from; where nothing is tried, the first is for everybody. */
  letters: GoingLetter[]
  claims: ReturnType<typeof claimsOf>
  /** The mailing's own pace besides the account's, messages a minute. */
  perMinute: number | null
  bucket: Bucket
  /** Conversations under way. */
  inFlight: number
  /** Answers that are not in the database yet. */
  outcomes: Settled[]
}

export interface GoingLetter {
  compiled: CompiledLetter
  mould: MessageMould
  senderName: string
  /** Picks products for its readers, where the letter has such. */
  picker: Picker | null
  /** Reads what its fill-ins name of what readers did, where they name such. */
  valuesFor: ReturnType<typeof readerValuesFor>
  listName: string
}
