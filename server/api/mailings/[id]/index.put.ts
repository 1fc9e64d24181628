import type { Rule } from '~~/core/segments'
import { chooseLetterhead, letterheads } from '~~/database/letterheads'
import { listById } from '~~/database/lists'
import { updateMailing } from '~~/database/mailings'
import { segmentById } from '~~/database/segments'
import { mailingInput } from '~~/shared/inputs'

const written = (rule: Rule) => JSON.stringify(rule)

/** Changes a mailing's name, its audience, or the letterhead of its letter. */
export default defineEventHandler(async (event) => {
  const input = await readInput(event, mailingInput)
  const { db } = satchel()
  const mailing =
    input.listId !== undefined ||
    input.joinedWithinDays !== undefined ||
    input.segmentId !== undefined ||
    input.letterheadId !== undefined
      ? unsentMailingOf(event)
      : mailingOf(event)
  if (input.listId != null && !listById(db, input.listId))
    throw refused('This list is gone. Choose another.')
  if (input.segmentId != null && !segmentById(db, input.segmentId))
    throw refused('This segment is gone. Choose another.')
  if (input.letterheadId != null && !letterheads(db).some(({ id }) => id === input.letterheadId))
    throw refused('This letterhead is gone. Choose another.')
  if (input.letterheadId !== undefined) chooseLetterhead(db, mailing.letter_id, input.letterheadId)
  updateMailing(db, mailing.id, {
    ...(input.name !== undefined ? { name: input.name } : {}),
    ...(input.listId !== undefined ? { list_id: input.listId } : {}),
    ...(input.joinedWithinDays != null
      ? {
          rule: written({
            kind: 'joined',
            when: { is: 'last-days', days: input.joinedWithinDays },
          }),
        }
      : input.segmentId != null
        ? { rule: written({ kind: 'segment', segmentId: input.segmentId }) }
        : input.joinedWithinDays === null || input.segmentId === null
          ? { rule: null }
          : {}),
  })
  return { ok: true }
})
