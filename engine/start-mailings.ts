import { partsOf, type DispatchPlan } from '../core/dispatch'
import { firstLinkOf, linksOf } from '../core/letters'
import { transact, type Database } from '../database'
import { readAccount } from '../database/account'
import { contentsOf, keepContent, type Content } from '../database/sending'
import {
  noteGoalStarts,
  goesOut,
  audienceOf,
  dueMailings,
  mailingById,
  moveMailing,
  saveLinks,
  type Mailing,
  addParts,
  beginPart,
  holdOut,
  partsOfMailing,
  planOf,
  fixVariants,
  variantsOf,
  senderOf,
} from '../database/mailings'
import { dispatchBlockers } from '../cases/mailings'
import { pickerFor } from '../database/letters'
import type { Engine, Work } from './engine'
import { contentNow } from '../cases/letters'

/**
 * Scheduled mailings whose time has come begin: what goes out, their variants, parts and who is held out are fixed now,
 * and the recipients of the first part. One that has become faulty since it was scheduled is held by its proof instead,
 * and one that can't be made by that.
 */
export const startDueMailings: Work = async (engine) => {
  const { db, clock, hostClock } = engine
  const due = dueMailings(db, clock(), hostClock())
  for (const mailing of due) await start(engine, mailing)
  return due.length > 0
}

async function start(engine: Engine, mailing: Mailing) {
  const { db, clock, settings, log, notes } = engine
  const hold = (held_by: Mailing['held_by'], held_note: string) => {
    moveMailing(db, mailing.id, ['scheduled'], 'held', { held_by, held_note })
    log.warn({ mailing: mailing.id, held_by }, 'held before it began')
  }
  if (settings.smtpUrl === null) return hold('hand', 'No mail server is set.')
  const audience = audienceOf(db, mailing)
  const before = goesOut(db, mailing, null)
  const plan = planOf(mailing)
  let contents: Content[]
  notes.begin({ mailing: mailing.id, what: 'letter' })
  try {
    const blockers = dispatchBlockers(db, mailing, clock())
    if (blockers.length || !audience) return hold('proof', blockers.join('; '))
    contents = await Promise.all(
      lettersOf(db, mailing, plan).map(({ letter_id, ...change }) =>
        contentNow(db, { ...mailing, letter_id }, engine, change),
      ),
    )
  } catch (error) {
    return hold('fault', `Its letter can’t be made: ${(error as Error).message}`)
  } finally {
    notes.over()
  }
  transact(db, () => {
    const now = clock()
    // What was changed while it was made is made anew.
    const still = mailingById(db, mailing.id)
    if (!still || JSON.stringify(goesOut(db, still, null)) !== JSON.stringify(before)) return
    const taken = moveMailing(db, mailing.id, ['scheduled'], 'sending', {
      started_at: now,
      held_by: null,
      held_note: null,
    })
    if (!taken) return
    fixVariants(db, mailing, plan, senderOf(db, mailing).name, now)
    contents.forEach((content, no) => keepContent(db, mailing.id, no, content))
    addParts(db, mailing.id, partsOf(plan))
    const heldOut = holdOut(db, mailing, audience, plan.holdout, now)
    const [first] = partsOfMailing(db, mailing.id)
    const recipients = beginPart(db, mailing, first!, audience, readAccount(db)!.zone, now)
    noteGoalStarts(db, mailing, first!.no, now)
    keepLinks(db, mailing, settings.url, now)
    log.info({ mailing: mailing.id, recipients, heldOut }, 'mailing begins')
  })
}

/** The letters that go out: the mailing's own, or each variant's. */
function lettersOf(db: Database, mailing: Mailing, { test }: DispatchPlan) {
  if (!test) return [{ letter_id: mailing.letter_id }]
  return test.variants.map((variant, no) => {
    const own = { letter_id: mailing.letter_id }
    if (no === 0) return own
    switch (test.of) {
      case 'letter':
        return {
          letter_id: mailingById(db, variant.mailingId ?? 0)?.letter_id ?? mailing.letter_id,
        }
      case 'subject':
        return { ...own, subject: variant.subject, previewText: variant.previewText }
      case 'sender':
        return { ...own, senderName: variant.senderName }
      case 'hour':
        return own
    }
  })
}

/**
 * Keeps what goes out of a mailing that began before that was kept, as things stand now: from here on it stays. What it
 * is of.
 */
export async function contentsToSend(engine: Engine, mailing: Mailing) {
  const { db } = engine
  const kept = contentsOf(db, mailing.id)
  if (kept.length) return kept
  const variants = variantsOf(db, mailing.id)
  const letters = variants.length
    ? variants.map(({ letter_id, sender_name }) => ({ letter_id, senderName: sender_name }))
    : [{ letter_id: mailing.letter_id }]
  const made = await Promise.all(
    letters.map(({ letter_id, ...change }) =>
      contentNow(db, { ...mailing, letter_id }, engine, change),
    ),
  )
  transact(db, () => made.forEach((content, no) => keepContent(db, mailing.id, no, content)))
  return contentsOf(db, mailing.id)
}

/** Keeps where every link leads, of each variant's letter under numbers of its own, and of all products that may be picked. */
export function keepLinks(db: Database, mailing: Mailing, url: string, now: number) {
  const contents = contentsOf(db, mailing.id)
  const links = contents.flatMap(({ no, content }) =>
    linksOf(content.letter.document).map((link, at) => ({ ...link, no: firstLinkOf(no) + at })),
  )
  const products = contents.flatMap(({ content }) =>
    (pickerFor(db, content.letter.document, url, now)?.links ?? []).map((link) => ({
      ...link,
      blockId: '',
    })),
  )
  const byNumber = new Map([...links, ...products].map((link) => [link.no, link]))
  saveLinks(db, mailing.id, [...byNumber.values()])
}
