import { changedSince, type Fingerprint } from '../../core/dispatch'
import { countAudience } from '../segments'
import { goesOut } from './happening'
import type { Author } from '../letters'
import { audienceOf } from './mailings'
import { one, q, run, type Database } from '../query'
import type { Approval } from '../../core/proof'

/**
 * The last time somebody was asked about a letter; null while nobody was. An approval is of what would go out as it was
 * then: the bytes of the letter, to whom, how and from whom. `people`: how many are eligible now, where it is known.
 */
export function approvalOf(
  db: Database,
  letterId: number,
  people: number | null = null,
): Approval | null {
  const row = one(
    db,
    q
      .selectFrom('approvals as a')
      .innerJoin('letters', 'letters.id', 'a.letter_id')
      .innerJoin('users', 'users.id', 'a.of_id')
      .selectAll('a')
      .select(['letters.version as now_version', 'users.name as of_name'])
      .where('letter_id', '=', letterId)
      .orderBy('a.id', 'desc')
      .limit(1),
  )
  const lapsedBy =
    row?.verdict === 'approved' ? changedSinceApproved(db, letterId, row, people) : []
  return row
    ? {
        id: row.id,
        askedAt: row.asked_at,
        askedBy: row.asked_by,
        ofId: row.of_id,
        ofName: row.of_name,
        note: row.note,
        answeredAt: row.answered_at,
        verdict: row.verdict,
        words: row.words,
        lapsed: lapsedBy.length > 0,
        lapsedBy,
      }
    : null
}

function changedSinceApproved(
  db: Database,
  letterId: number,
  row: { of: string | null; version: number; now_version: number },
  people: number | null,
): string[] {
  const mailing = mailingOfLetter(db, letterId)
  // Approved before it was kept of what.
  if (row.of === null || !mailing) return row.now_version === row.version ? [] : ['the letter']
  const approved = JSON.parse(row.of) as Fingerprint
  const now = { ...goesOut(db, mailing, mailing.scheduled_at), people: people ?? approved.people }
  // What was approved with no time set may be sent at any.
  return changedSince(approved, approved.when ? now : { ...now, when: '' })
}

function mailingOfLetter(db: Database, letterId: number) {
  return one(db, q.selectFrom('mailings').selectAll().where('letter_id', '=', letterId))
}

/** Asks a user whether a letter may go out. */
export function askApproval(
  db: Database,
  letterId: number,
  asked: { ofId: number; note: string },
  by: Author,
  now: number,
): number {
  const letter = one(db, q.selectFrom('letters').select('version').where('id', '=', letterId))!
  return run(
    db,
    q.insertInto('approvals').values({
      letter_id: letterId,
      version: letter.version,
      asked_at: now,
      asked_by: by.name,
      of_id: asked.ofId,
      note: asked.note,
    }),
  ).id
}

/**
 * What the one who was asked says of the version they saw; they may say otherwise later. False where somebody
 * else was asked, or the letter is another one by now.
 */
export function answerApproval(
  db: Database,
  letterId: number,
  said: { verdict: 'approved' | 'not yet'; words: string; sawVersion: number },
  by: Author,
  now: number,
): boolean {
  const letter = one(db, q.selectFrom('letters').select('version').where('id', '=', letterId))
  const last = approvalOf(db, letterId)
  if (!last || last.ofId !== by.id || letter?.version !== said.sawVersion) return false
  const { verdict, words, sawVersion: version } = said
  const mailing = mailingOfLetter(db, letterId)
  const audience = mailing && audienceOf(db, mailing)
  const of = mailing && {
    ...goesOut(db, mailing, mailing.scheduled_at),
    people: audience ? countAudience(db, audience, now) : 0,
  }
  const answer = { verdict, words, version, answered_at: now, of: of ? JSON.stringify(of) : null }
  run(db, q.updateTable('approvals').set(answer).where('id', '=', last.id))
  return true
}

/** Nobody needs to approve the letter any more. */
export function withdrawApproval(db: Database, letterId: number) {
  run(db, q.deleteFrom('approvals').where('letter_id', '=', letterId))
}
