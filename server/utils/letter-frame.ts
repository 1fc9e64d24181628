import type { LetterFrame } from '~~/core/letters/rendering'
import { letterheadOf } from '~~/database/letters'
import { listById } from '~~/database/people'
import type { Mailing } from '~~/database/mailings'

/** What a mailing's letter is rendered with: its letterhead, and whom it comes from. */
export function letterFrame(
  mailing: Pick<Mailing, 'list_id'> & { letter_id?: number },
): LetterFrame {
  const { letterhead: usual, postal_address, sender_name } = account()
  const { db, url } = satchel()
  const { letter_id } = mailing
  const letterhead = letter_id === undefined ? usual : letterheadOf(db, letter_id)
  const list = mailing.list_id === null ? undefined : listById(db, mailing.list_id)
  return {
    letterhead,
    postalAddress: postal_address,
    senderName: sender_name,
    listName: list?.public_name ?? 'this list',
    url,
  }
}
