import { randomInt } from 'node:crypto'
import { dropOpenRecipients, forgetRepliesOf, forgetReportsAbout, moveClicks } from '../sending'
import { rememberErased } from './erased'
import { forgetWords } from './search'
import { one, q, run, transact, type Database } from '../query'
import { addJob, forgetCopiesNaming } from '../jobs'
import { forgetRequestsTo } from '../readers'
import { forgetSendingsOf } from '../sign-ups'

/**
 * Erases a person for good: everything about them goes, and so does who it was that the counts of past
 * mailings were about. Only a keyed hash of the address stays, so that no import brings them back.
 */
export function erasePerson(db: Database, id: number, now: number): boolean {
  return transact(db, () => {
    const person = one(db, q.selectFrom('people').select('normal').where('id', '=', id))
    if (!person) return false
    dropOpenRecipients(db, id, 'erased', now)
    rememberErased(db, person.normal, now)
    // What past mailings counted stays counted, under a number that leads nowhere and is never given again.
    const nobody = -randomInt(2 ** 47)
    moveClicks(db, id, nobody)
    addJob(db, 'move-acts', { from: id, to: nobody }, now)
    run(
      db,
      q
        .updateTable('recipients')
        .set({ person_id: nobody, answer: null })
        .where('person_id', '=', id),
    )
    run(
      db,
      q
        .deleteFrom('import_notices')
        .where('cells', 'like', `%${person.normal.replace(/[\\%_]/g, '_')}%`),
    )
    forgetRepliesOf(db, id)
    forgetReportsAbout(db, id, person.normal)
    forgetCopiesNaming(db, person.normal)
    forgetRequestsTo(db, person.normal)
    forgetSendingsOf(db, id, person.normal)
    run(db, q.deleteFrom('people').where('id', '=', id))
    forgetWords(db)
    return true
  })
}
