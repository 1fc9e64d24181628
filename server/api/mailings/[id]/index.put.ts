import type { Rule } from '~~/core/segments'
import { chooseLetterhead, letterheads } from '~~/database/letters'
import { listById } from '~~/database/people'
import { settingsVersion, updateMailing } from '~~/database/mailings'
import { segmentById } from '~~/database/segments'
import { mailingInput } from '~~/shared/mailing-inputs'

/** Changes a mailing's name, its audience, or the letterhead of its letter. */
export default defineEventHandler(async (event) => {
  const { name, letterheadId, version, ...audience } = await readInput(event, mailingInput)
  const { db } = satchel()
  const input = { ...audience, letterheadId }
  const changesMore = Object.values(input).some((value) => value !== undefined)
  if (Object.values(audience).some((value) => value !== undefined)) dispatchedMailingOf(event)
  const mailing = changesMore ? unsentMailingOf(event) : mailingOf(event)
  if (version !== undefined && version !== settingsVersion(db, mailing))
    throw overtaken('Somebody else changed this mailing meanwhile. Look at theirs first.')
  if (input.listId != null && !listById(db, input.listId))
    throw refused('This list is gone. Choose another.')
  for (const id of [...(input.segmentIds ?? []), ...(input.leftOutIds ?? [])])
    if (!segmentById(db, id)) throw refused('This segment is gone. Choose another.')
  if (input.letterheadId != null && !letterheads(db).some(({ id }) => id === input.letterheadId))
    throw refused('This letterhead is gone. Choose another.')
  if (input.letterheadId !== undefined) chooseLetterhead(db, mailing.letter_id, input.letterheadId)
  updateMailing(db, mailing.id, {
    ...(name !== undefined ? { name } : {}),
    ...(input.listId !== undefined ? { list_id: input.listId } : {}),
    ...(input.joinedWithinDays != null
      ? { rule: written(joinedIn(input.joinedWithinDays)) }
      : input.segmentIds !== undefined
        ? { rule: written(inAnyOf(input.segmentIds)) }
        : input.joinedWithinDays === null
          ? { rule: null }
          : {}),
    ...(input.leftOutIds !== undefined ? { left_out: written(inAnyOf(input.leftOutIds)) } : {}),
    ...(input.pastCap !== undefined ? { past_cap: input.pastCap ? 1 : 0 } : {}),
  })
  return { version: settingsVersion(db, mailingOf(event)) }
})

const written = (rule: Rule | null) => rule && JSON.stringify(rule)

const joinedIn = (days: number): Rule => ({ kind: 'joined', when: { is: 'last-days', days } })

function inAnyOf(ids: readonly number[]): Rule | null {
  const of = [...new Set(ids)].map((segmentId): Rule => ({ kind: 'segment', segmentId }))
  return of.length > 1 ? { kind: 'any', of } : (of[0] ?? null)
}
