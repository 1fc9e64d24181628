import { packLetter, type compileLetter } from '../../core/letters/rendering'
import type { Database } from '../../database'
import { wholeLetterOf } from '../../database/letters'
import { senderOf, type Mailing } from '../../database/mailings'
import { listById } from '../../database/people'
import type { Content } from '../../database/sending'
import { frameOf } from './frame'

/** How letters are made, and where this Satchel is reached. */
interface Made {
  settings: { url: string }
  compile: typeof compileLetter
}

/** What goes out of a mailing's letter as things stand now; rejects where it can't be made. */
export async function contentNow(
  db: Database,
  mailing: Pick<Mailing, 'list_id' | 'letter_id' | 'plan'>,
  { settings: { url }, compile }: Made,
  change: { subject?: string; previewText?: string; senderName?: string } = {},
): Promise<Content> {
  const usual = frameOf(db, mailing, url)
  const { id, key, public_name } = listById(db, mailing.list_id!)!
  const whole = wholeLetterOf(db, mailing.letter_id)
  const letter = {
    ...whole,
    subject: change.subject?.trim() || whole.subject,
    previewText: change.previewText?.trim() || whole.previewText,
  }
  const senderName = change.senderName?.trim() || usual.senderName
  const { letterhead, postalAddress, footer } = usual
  const { address: senderAddress, replies } = senderOf(db, mailing)
  return {
    packed: packLetter(await compile(letter, { ...usual, senderName })),
    letter,
    letterhead,
    postalAddress,
    footer,
    senderName,
    senderAddress,
    replies,
    list: { id, key, name: public_name },
    url,
  }
}
