import type { LetterFrame } from '~~/core/letters/rendering'
import { listById } from '~~/database/lists'
import type { Mailing } from '~~/database/mailings'

/** What a mailing's letter is rendered with: the account's letterhead, and whom it comes from. */
export function letterFrame(mailing: Pick<Mailing, 'list_id'>): LetterFrame {
  const { letterhead, postal_address, sender_name } = account()
  const { db, url } = satchel()
  const list = mailing.list_id === null ? undefined : listById(db, mailing.list_id)
  return {
    letterhead,
    postalAddress: postal_address,
    senderName: sender_name,
    listName: list?.public_name ?? 'this list',
    url,
  }
}
