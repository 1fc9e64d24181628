import { mailingsOfMap } from '../core/sequences'
import { transact } from '../database'
import { readAccount } from '../database/account'
import { advanceDue, enrolNew } from '../database/enrolments'
import { mailingById, moveMailing } from '../database/mailings'
import { runningSequences, type Sequence } from '../database/sequences'
import type { Engine, Work } from './engine'
import { compileMailing, keepLinks } from './start-mailings'

/**
 * Running sequences: their mails begin to go out to whoever comes by, who newly did what starts them comes in, and
 * those inside go on where their step is due.
 */
export const runSequences: Work = async (engine) => {
  const { db, clock, log } = engine
  let busy = false
  for (const sequence of runningSequences(db)) {
    await beginMails(engine, sequence)
    const { entered, more } = enrolNew(db, sequence, clock())
    if (entered) log.info({ sequence: sequence.id, entered }, 'people come in')
    busy ||= entered > 0 || more
  }
  const advanced = advanceDue(db, clock())
  if (advanced) log.info({ advanced }, 'steps carried out')
  return busy || advanced > 0
}

/** From now on the letters of a sequence are fixed. One that can't be compiled keeps all from beginning. */
async function beginMails({ db, clock, settings }: Engine, { map }: Sequence) {
  for (const id of mailingsOfMap(map)) {
    const mailing = mailingById(db, id)
    if (mailing?.state !== 'draft') continue
    await compileMailing(db, mailing, readAccount(db)!, settings.url)
    transact(db, () => {
      if (moveMailing(db, id, ['draft'], 'sending', { started_at: clock() }))
        keepLinks(db, mailing, settings.url, clock())
    })
  }
}
