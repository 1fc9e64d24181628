import { mailingsOfMap } from '../core/sequences'
import { transact } from '../database'
import { keepContent } from '../database/sending'
import { goesOut, mailingById, moveMailing } from '../database/mailings'
import {
  advanceDue,
  enrolNew,
  forgetCues,
  judgeSplits,
  mapsInside,
  runningSequences,
  wakeWho,
  type Sequence,
} from '../database/sequences'
import type { Engine, Work } from './engine'
import { contentNow } from '../cases/letters'
import { keepLinks } from './start-mailings'

/**
 * Running sequences: their mails begin to go out to whoever comes by, who newly did what starts them comes in, and
 * those inside go on where their step is due.
 */
export const runSequences: Work = async (engine) => {
  const { db, clock, log } = engine
  let busy = false
  const running = runningSequences(db)
  for (const sequence of running) {
    await beginMails(engine, sequence)
    const { entered, more } = enrolNew(db, sequence, clock())
    if (entered) log.info({ sequence: sequence.id, entered }, 'people come in')
    busy ||= entered > 0 || more
    const decided = judgeSplits(db, sequence, clock())
    if (decided) log.info({ sequence: sequence.id, decided }, 'splits have come to other shares')
  }
  // What came in while they were gone through is read next time.
  if (!busy) forgetCues(db, running)
  wakeWho(db, clock())
  const advanced = advanceDue(db, clock())
  if (advanced) log.info({ advanced }, 'steps carried out')
  return busy || advanced > 0
}

/** From now on the letters of a sequence are fixed. One that can't be made is held; the others begin. */
async function beginMails(engine: Engine, { id: sequence, map }: Sequence) {
  const { db, clock, settings, notes, log } = engine
  const mails = [map, ...mapsInside(db, sequence)].flatMap(mailingsOfMap)
  for (const id of new Set(mails)) {
    const mailing = mailingById(db, id)
    if (mailing?.state !== 'draft') continue
    notes.begin({ mailing: id, what: 'letter' })
    try {
      const before = JSON.stringify(goesOut(db, mailing, null))
      const content = await contentNow(engine.db, mailing, engine)
      transact(db, () => {
        // What was changed while it was made is made anew.
        const still = mailingById(db, id)
        if (!still || JSON.stringify(goesOut(db, still, null)) !== before) return
        if (!moveMailing(db, id, ['draft'], 'sending', { started_at: clock() })) return
        keepContent(db, id, 0, content)
        keepLinks(db, mailing, settings.url, clock())
      })
    } catch (error) {
      const held_note = `Its letter can’t be made: ${(error as Error).message}`
      moveMailing(db, id, ['draft'], 'held', { held_by: 'fault', held_note })
      log.error({ mailing: id }, 'held: its letter can’t be made')
    } finally {
      notes.over()
    }
  }
}
