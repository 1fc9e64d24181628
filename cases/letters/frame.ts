import type { LetterFrame } from '../../core/letters/rendering'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import { letterheadOf, pictureShapes } from '../../database/letters'
import { senderOf } from '../../database/mailings'
import { listById } from '../../database/people'
import { footerNow, speaksByReader } from './footer'

/**
 * What a letter is rendered with: its letterhead, and whom it comes from.
 * @param of The mailing's list and letter; without a letter the account's own letterhead.
 * @param url Where this Satchel is reached.
 */
export function frameOf(
  db: Database,
  of: { list_id: number | null; letter_id?: number; plan?: string },
  url: string,
): LetterFrame {
  const account = readAccount(db)!
  const list = of.list_id === null ? undefined : listById(db, of.list_id)
  return {
    letterhead: of.letter_id === undefined ? account.letterhead : letterheadOf(db, of.letter_id),
    postalAddress: account.postal_address,
    senderName: senderOf(db, of.plan === undefined ? null : { plan: of.plan }).name,
    listName: list?.public_name ?? 'this list',
    footer: { ...footerNow(db, of.list_id), byReader: speaksByReader(db) },
    url,
    shapes: pictureShapes(db),
  }
}
