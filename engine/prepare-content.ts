import { packLetter } from '../core/letters/rendering'
import { readAccount } from '../database/account'
import type { Content } from '../database/sending'
import { letterheadOf, wholeLetterOf } from '../database/letters'
import { listById } from '../database/people'
import type { Mailing } from '../database/mailings'
import type { Engine } from './engine'

/** What goes out of a mailing's letter as things stand now; throws where it can't be made. */
export async function prepareContent(
  { db, settings, compile }: Pick<Engine, 'db' | 'settings' | 'compile'>,
  mailing: Pick<Mailing, 'list_id' | 'letter_id'>,
  change: { subject?: string; previewText?: string; senderName?: string } = {},
): Promise<Content> {
  const account = readAccount(db)!
  const { id, key, public_name } = listById(db, mailing.list_id!)!
  const whole = wholeLetterOf(db, mailing.letter_id)
  const letter = {
    ...whole,
    subject: change.subject?.trim() || whole.subject,
    previewText: change.previewText?.trim() || whole.previewText,
  }
  const senderName = change.senderName?.trim() || account.sender_name
  const letterhead = letterheadOf(db, mailing.letter_id)
  const frame = {
    letterhead,
    postalAddress: account.postal_address,
    senderName,
    listName: public_name,
    url: settings.url,
  }
  return {
    packed: packLetter(await compile(letter, frame)),
    letter,
    letterhead,
    postalAddress: account.postal_address,
    senderName,
    senderAddress: account.sender_address,
    list: { id, key, name: public_name },
    url: settings.url,
  }
}
