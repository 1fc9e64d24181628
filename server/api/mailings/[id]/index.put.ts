import { listById } from '~~/database/lists'
import { updateMailing } from '~~/database/mailings'
import { mailingInput } from '~~/shared/inputs'

/** Changes a mailing's name or audience. */
export default defineEventHandler(async (event) => {
  const input = await readInput(event, mailingInput)
  const { db } = satchel()
  const mailing =
    input.listId !== undefined || input.joinedWithinDays !== undefined
      ? unsentMailingOf(event)
      : mailingOf(event)
  if (input.listId != null && !listById(db, input.listId))
    throw refused('This list is gone. Choose another.')
  updateMailing(db, mailing.id, {
    ...(input.name !== undefined ? { name: input.name } : {}),
    ...(input.listId !== undefined ? { list_id: input.listId } : {}),
    ...(input.joinedWithinDays !== undefined
      ? {
          rule:
            input.joinedWithinDays === null
              ? null
              : JSON.stringify({ kind: 'joined', withinDays: input.joinedWithinDays }),
        }
      : {}),
  })
  return { ok: true }
})
