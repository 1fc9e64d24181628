import { compileLetter } from '../core/letters/rendering'
import { blockersOf } from '../core/proof'
import { transact, type Database } from '../database'
import { readAccount, type Account } from '../database/account'
import { letterheadOf, wholeLetterOf } from '../database/letterheads'
import { listById } from '../database/lists'
import { audienceOf, dueMailings, moveMailing, saveLinks, type Mailing } from '../database/mailings'
import { pickerFor } from '../database/picks'
import { proofMailing } from '../database/proof'
import { planRecipients } from '../database/recipients'
import type { Work } from './engine'

/**
 * Scheduled mailings whose time has come begin: the recipient list is fixed now. One that has
 * become faulty since it was scheduled is held by its proof instead.
 */
export const startDueMailings: Work = async ({ db, clock, settings, log }) => {
  const due = dueMailings(db, clock())
  for (const mailing of due) {
    if (settings.smtpUrl === null) {
      moveMailing(db, mailing.id, ['scheduled'], 'held', {
        held_by: 'hand',
        held_note: 'No mail server is set.',
      })
      continue
    }
    const blockers = blockersOf(proofMailing(db, mailing, clock()))
    const audience = audienceOf(mailing)
    if (blockers.length || !audience) {
      const note = blockers.map((mark) => mark.title).join('; ')
      moveMailing(db, mailing.id, ['scheduled'], 'held', { held_by: 'proof', held_note: note })
      log.warn({ mailing: mailing.id, blockers: blockers.length }, 'held by its proof')
      continue
    }
    const compiled = await compileMailing(db, mailing, readAccount(db)!, settings.url)
    transact(db, () => {
      const now = clock()
      if (
        !moveMailing(db, mailing.id, ['scheduled'], 'sending', {
          started_at: now,
          held_by: null,
          held_note: null,
        })
      )
        return
      saveLinks(db, mailing.id, [
        ...compiled.links,
        ...productLinks(db, mailing, settings.url, now),
      ])
      const recipients = planRecipients(db, mailing.id, audience, now)
      log.info({ mailing: mailing.id, recipients }, 'mailing begins')
    })
  }
  return due.length > 0
}

/** A mailing's letter, ready to be merged. */
export function compileMailing(db: Database, mailing: Mailing, account: Account, url: string) {
  const list = listById(db, mailing.list_id!)!
  return compileLetter(wholeLetterOf(db, mailing.letter_id), {
    letterhead: letterheadOf(db, mailing.letter_id),
    postalAddress: account.postal_address,
    senderName: account.sender_name,
    listName: list.public_name,
    url,
  })
}

/** Where the products lead that may be picked for somebody. */
function productLinks(db: Database, mailing: Mailing, url: string, now: number) {
  const { document } = wholeLetterOf(db, mailing.letter_id)
  const picksOf = pickerFor(db, document, url, now)
  return (picksOf?.links ?? []).map((link) => ({ ...link, blockId: '' }))
}
