import { partsOf } from '../core/dispatch'
import { compileLetter } from '../core/letters/rendering'
import { firstLinkOf, linksOf } from '../core/letters'
import { transact, type Database } from '../database'
import { readAccount, type Account } from '../database/account'
import { noteGoalStarts } from '../database/goal-segments'
import { letterheadOf, wholeLetterOf } from '../database/letterheads'
import { listById } from '../database/lists'
import { audienceOf, dueMailings, moveMailing, saveLinks, type Mailing } from '../database/mailings'
import { addParts, beginPart, holdOut, partsOfMailing, planOf } from '../database/parts'
import { pickerFor } from '../database/picks'
import { dispatchBlockers } from '../database/proof'
import { fixVariants, variantLetters, variantsOf } from '../database/variants'
import type { Work } from './engine'

/**
 * Scheduled mailings whose time has come begin: their variants, parts and who is held out are fixed now, and the
 * recipients of the first part. One that has become faulty since it was scheduled is held by its proof instead.
 */
export const startDueMailings: Work = async ({ db, clock, hostClock, settings, log }) => {
  const due = dueMailings(db, clock(), hostClock())
  for (const mailing of due) {
    if (settings.smtpUrl === null) {
      moveMailing(db, mailing.id, ['scheduled'], 'held', {
        held_by: 'hand',
        held_note: 'No mail server is set.',
      })
      continue
    }
    const blockers = dispatchBlockers(db, mailing, clock())
    const audience = audienceOf(db, mailing)
    if (blockers.length || !audience) {
      const note = blockers.join('; ')
      moveMailing(db, mailing.id, ['scheduled'], 'held', { held_by: 'proof', held_note: note })
      log.warn({ mailing: mailing.id, blockers: blockers.length }, 'held by its proof')
      continue
    }
    const account = readAccount(db)!
    const plan = planOf(mailing)
    // A letter that can't be compiled changes nothing.
    for (const { letter_id } of [mailing, ...variantLetters(db, plan).map((one) => one.mailing)])
      await compileMailing(db, { ...mailing, letter_id }, account, settings.url)
    transact(db, () => {
      const now = clock()
      const taken = moveMailing(db, mailing.id, ['scheduled'], 'sending', {
        started_at: now,
        held_by: null,
        held_note: null,
      })
      if (!taken) return
      fixVariants(db, mailing, plan, account.sender_name, now)
      addParts(db, mailing.id, partsOf(plan))
      const heldOut = holdOut(db, mailing, audience, plan.holdout, now)
      const [first] = partsOfMailing(db, mailing.id)
      const recipients = beginPart(db, mailing, first!, audience, account.zone, now)
      noteGoalStarts(db, mailing, now)
      keepLinks(db, mailing, settings.url, now)
      log.info({ mailing: mailing.id, recipients, heldOut }, 'mailing begins')
    })
  }
  return due.length > 0
}

/** A letter of a mailing, ready to be merged. */
export function compileMailing(
  db: Database,
  mailing: Pick<Mailing, 'list_id' | 'letter_id'>,
  account: Account,
  url: string,
  senderName = account.sender_name,
) {
  const list = listById(db, mailing.list_id!)!
  return compileLetter(wholeLetterOf(db, mailing.letter_id), {
    letterhead: letterheadOf(db, mailing.letter_id),
    postalAddress: account.postal_address,
    senderName,
    listName: list.public_name,
    url,
  })
}

/** Keeps where every link leads, of each variant's letter under numbers of its own, and of all products that may be picked. */
export function keepLinks(db: Database, mailing: Mailing, url: string, now: number) {
  const variants = variantsOf(db, mailing.id)
  const letters = variants.length ? variants : [{ no: 0, letter_id: mailing.letter_id }]
  const links = letters.flatMap(({ no, letter_id }) =>
    linksOf(wholeLetterOf(db, letter_id).document).map((link, at) => ({
      ...link,
      no: firstLinkOf(no) + at,
    })),
  )
  const products = letters.flatMap(({ letter_id }) => productLinks(db, letter_id, url, now))
  const byNumber = new Map([...links, ...products].map((link) => [link.no, link]))
  saveLinks(db, mailing.id, [...byNumber.values()])
}

/** Where the products lead that may be picked for somebody. */
function productLinks(db: Database, letterId: number, url: string, now: number) {
  const { document } = wholeLetterOf(db, letterId)
  const picksOf = pickerFor(db, document, url, now)
  return (picksOf?.links ?? []).map((link) => ({ ...link, blockId: '' }))
}
