import type { Author } from './history'
import { all, one, q, run, type Database } from '../query'
import type { Comment } from '../../core/letters'

/** The comments on a letter, the oldest first. */
export function commentsOn(db: Database, letterId: number): Comment[] {
  const rows = all(
    db,
    q.selectFrom('comments').selectAll().where('letter_id', '=', letterId).orderBy('id'),
  )
  return rows
    .filter(({ answer_to }) => answer_to === null)
    .map((row) => ({
      id: row.id,
      blockId: row.block_id,
      at: row.at,
      byName: row.by_name,
      text: row.text,
      resolved:
        row.resolved_at === null ? null : { at: row.resolved_at, by: row.resolved_by ?? '' },
      answers: rows
        .filter(({ answer_to }) => answer_to === row.id)
        .map(({ id, at, by_name, text }) => ({ id, at, byName: by_name, text })),
    }))
}

/** Says something about a block, or answers; an answer opens a resolved comment again. Null: no such comment here. */
export function addComment(
  db: Database,
  letterId: number,
  said: { blockId: string; text: string; answerTo: number | null },
  by: Author,
  now: number,
): number | null {
  const asked = said.answerTo === null ? null : commentById(db, letterId, said.answerTo)
  if (asked === undefined) return null
  if (asked) resolveComment(db, letterId, asked.id, false, by, now)
  return run(
    db,
    q.insertInto('comments').values({
      letter_id: letterId,
      block_id: asked?.block_id ?? said.blockId,
      answer_to: asked?.id ?? null,
      at: now,
      by_id: by.id,
      by_name: by.name,
      text: said.text,
    }),
  ).id
}

/** Marks a comment as dealt with, or opens it again. Whether there is one. */
export function resolveComment(
  db: Database,
  letterId: number,
  id: number,
  resolved: boolean,
  by: Author,
  now: number,
): boolean {
  if (!commentById(db, letterId, id)) return false
  const to = resolved
    ? { resolved_at: now, resolved_by: by.name }
    : { resolved_at: null, resolved_by: null }
  run(db, q.updateTable('comments').set(to).where('id', '=', id))
  return true
}

/** Takes back what one has said oneself, with its answers. */
export function deleteComment(db: Database, letterId: number, id: number, by: Author): boolean {
  const own = q
    .deleteFrom('comments')
    .where('letter_id', '=', letterId)
    .where('id', '=', id)
    .where('by_id', '=', by.id)
  return run(db, own).changes > 0
}

/** A comment that is no answer. */
function commentById(db: Database, letterId: number, id: number) {
  return one(
    db,
    q
      .selectFrom('comments')
      .select(['id', 'block_id'])
      .where('letter_id', '=', letterId)
      .where('id', '=', id)
      .where('answer_to', 'is', null),
  )
}
