import type { Addressed } from '../../core/delivery'
import { DAY } from '../../core/time'
import { all, one, q, run, transact, type Database } from '../query'

/** What a person wrote back. */
export interface NewReply extends Addressed {
  from: { name: string; address: string }
  subject: string
  text: string
  /** The report that it came in as. */
  reportId: number | null
}

/** So much of a reply is kept; the whole message is, too, as long as reports are. */
const LONGEST = 20_000

/** No more of one person's are passed on in a day, whoever writes in their name. */
const PASSED_ON_A_DAY = 20

/** Keeps a reply, to be passed on; the first of somebody to a mailing counts. Its id. */
export function addReply(db: Database, reply: NewReply, now: number): number {
  const { mailingId, personId, round, from, subject, text, reportId } = reply
  return transact(db, () => {
    const tooMany = repliedSince(db, personId, now - DAY) >= PASSED_ON_A_DAY
    const { id } = run(
      db,
      q.insertInto('replies').values({
        mailing_id: mailingId,
        person_id: personId,
        round,
        at: now,
        from_name: from.name.slice(0, 200),
        from_address: from.address.slice(0, 320),
        subject: subject.slice(0, 500),
        text: text.slice(0, LONGEST),
        report_id: reportId,
        ...(tooMany
          ? { pass_on_note: `Kept here alone: more than ${PASSED_ON_A_DAY} of theirs in a day.` }
          : { pass_on_due: now }),
      }),
    )
    run(
      db,
      q
        .updateTable('recipients')
        .set({ replied_at: now })
        .where('mailing_id', '=', mailingId)
        .where('person_id', '=', personId)
        .where('round', '=', round)
        .where('replied_at', 'is', null),
    )
    return id
  })
}

function repliedSince(db: Database, personId: number, since: number): number {
  return one(
    db,
    q
      .selectFrom('replies')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where('person_id', '=', personId)
      .where('at', '>', since),
  )!.n
}

/** The next reply that is to be passed on, with the message as it came where that is still kept. */
export function nextToPassOn(db: Database, now: number) {
  return one(
    db,
    q
      .selectFrom('replies')
      .leftJoin('reports', 'reports.id', 'replies.report_id')
      .innerJoin('mailings', 'mailings.id', 'replies.mailing_id')
      .select([
        'replies.id',
        'replies.person_id',
        'replies.at',
        'from_name',
        'from_address',
        'subject',
        'text',
        'pass_on_tries',
        'reports.raw',
        'mailings.name as mailing',
      ])
      .where('pass_on_due', '<=', now)
      .orderBy('pass_on_due')
      .limit(1),
  )
}
export type ReplyToPassOn = NonNullable<ReturnType<typeof nextToPassOn>>

/** A reply has gone to the sender. */
export function replyPassedOn(db: Database, id: number, now: number) {
  const set = { pass_on_due: null, passed_on_at: now, pass_on_note: null }
  run(db, q.updateTable('replies').set(set).where('id', '=', id))
}

/** A reply could not be passed on, for a reason: tried again at `due`; null: given up. */
export function replyNotPassedOn(db: Database, id: number, note: string, due: number | null) {
  run(
    db,
    q
      .updateTable('replies')
      .set((eb) => ({
        pass_on_due: due,
        pass_on_tries: eb('pass_on_tries', '+', 1),
        pass_on_note: note.slice(0, 500),
      }))
      .where('id', '=', id),
  )
}

const shown = () =>
  q
    .selectFrom('replies')
    .select(['id', 'mailing_id', 'at', 'from_name', 'from_address', 'subject', 'text'])
    .select(['passed_on_at', 'pass_on_note'])

/** What somebody wrote back, the newest first. */
export function repliesOf(db: Database, personId: number) {
  return all(db, shown().where('person_id', '=', personId).orderBy('at', 'desc'))
}

/** The newest replies to a mailing, so many at most, with who wrote them. */
export function repliesTo(db: Database, mailingId: number, most: number) {
  return all(
    db,
    shown()
      .select('person_id')
      .where('mailing_id', '=', mailingId)
      .orderBy('at', 'desc')
      .limit(most),
  )
}

/** How many people have replied to a mailing. */
export function repliedCount(db: Database, mailingId: number): number {
  return one(
    db,
    q
      .selectFrom('recipients')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where('mailing_id', '=', mailingId)
      .where('replied_at', 'is not', null),
  )!.n
}

/** Deletes what somebody wrote; that they did stays counted. */
export function forgetRepliesOf(db: Database, personId: number) {
  run(db, q.deleteFrom('replies').where('person_id', '=', personId))
}

/** Makes what somebody wrote another's. */
export function moveReplies(db: Database, from: number, to: number) {
  run(db, q.updateTable('replies').set({ person_id: to }).where('person_id', '=', from))
}
