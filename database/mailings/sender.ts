import { senderWith, type LetterSender } from '../../core/senders'
import { readAccount } from '../account'
import type { Database } from '../query'
import type { Mailing } from './mailings'
import { planOf } from './parts'

/** Whom a mailing comes from, and where answers to it go. */
export function senderOf(db: Database, mailing: Pick<Mailing, 'plan'> | null): LetterSender {
  const { sender_name: name, sender_address: address, replies } = readAccount(db)!
  const usual = { name, address, replies }
  return mailing ? senderWith(usual, planOf(mailing).sender) : usual
}
