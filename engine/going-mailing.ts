import {
  mouldMessage,
  providerPacer,
  withLinksFrom,
  type Bucket,
  type MessageMould,
} from '../core/delivery'
import { firstLinkOf } from '../core/letters'
import type { CompiledLetter } from '../core/letters/rendering'
import { footersFor } from '../cases/letters'
import { readAccount, type Account } from '../database/account'
import {
  claimsOf,
  type Candidate,
  type Settled,
  compiledOf,
  type Content,
} from '../database/sending'
import { type Mailing, planOf, readerValuesFor } from '../database/mailings'
import { pickerFor, type Picker } from '../database/letters'
import type { Engine } from './engine'
import { contentsToSend } from './start-mailings'

/** Prepares a mailing to be sent, or to be gone on with after a restart, from what was kept when it began. */
export async function beginMailing(engine: Engine, mailing: Mailing): Promise<GoingMailing> {
  const account = readAccount(engine.db)!
  const plan = planOf(mailing)
  const contents = await contentsToSend(engine, mailing)
  return {
    mailing,
    letters: contents.map(({ no, content }) => prepare(engine, mailing, account, no, content)),
    claims: claimsOf(
      engine.db,
      engine.id,
      mailing.id,
      providerPacer(plan.providers),
      mailing.sequence_id !== null,
    ),
    perMinute: plan.perMinute,
    bucket: { level: 0, at: 0 },
    served: 0,
    making: new Map(),
    ready: [],
    inConversation: 0,
    outcomes: [],
  }
}

function prepare(
  { db, clock }: Engine,
  { id: mailingId, sequence_id: sequence }: Mailing,
  account: Account,
  no: number,
  content: Content,
): GoingLetter {
  const compiled = compiledOf(content)
  const { letter, list, senderName, senderAddress: address, url } = content
  const sender = {
    name: senderName,
    address,
    url,
    list: { key: list.key, name: list.name },
    // Kept before one could choose.
    replies: content.replies ?? 'sender',
  }
  const parts = withLinksFrom(compiled.parts, firstLinkOf(no))
  return {
    compiled,
    mould: mouldMessage(mailingId, parts, sender, Buffer.from(account.token_key, 'hex')),
    senderName,
    picker: pickerFor(db, letter.document, url, clock(), sequence),
    valuesFor: readerValuesFor(db, letter, list.id, sequence),
    footerFor: footersFor(db, list.id),
    listName: list.name,
  }
}

/** A mailing that is going out. */
export interface GoingMailing {
  mailing: Mailing
  /** What the messages of each variant are made from; where nothing is tried, the first is for everybody. */
  letters: GoingLetter[]
  claims: ReturnType<typeof claimsOf>
  /** The mailing's own pace besides the account's, messages a minute. */
  perMinute: number | null
  bucket: Bucket
  /** In which turn it last got a conversation. */
  served: number
  /** Those whose messages are made or being made, and who are not claimed yet, by person. */
  making: Map<number, Candidate>
  /** Of those, whose messages are ready to go. */
  ready: Ready[]
  /** Conversations under way. */
  inConversation: number
  /** Answers that are not in the database yet. */
  outcomes: Settled[]
}

/** A message that is made and signed, and who it is for. */
export interface Ready {
  recipient: Candidate
  returnPath: string
  bytes: Buffer
  /** Which of the letter's rules hold for them, as bits; null where it has none. */
  truth: number | null
}

export interface GoingLetter {
  compiled: CompiledLetter
  mould: MessageMould
  senderName: string
  /** Picks products for its readers, where the letter has such. */
  picker: Picker | null
  /** Reads what its fill-ins name of what readers did, where they name such. */
  valuesFor: ReturnType<typeof readerValuesFor>
  footerFor: ReturnType<typeof footersFor>
  listName: string
}
