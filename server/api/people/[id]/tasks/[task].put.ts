import { userById } from '~~/database/account'
import { setTaskDone } from '~~/database/people'
import { taskDoneInput } from '~~/shared/people-inputs'

/** Somebody's task is done, or to do again. */
export default defineEventHandler(async (event) => {
  const { done } = await readInput(event, taskDoneInput)
  const { db, clock } = satchel()
  const by = userById(db, me(event).user.id)?.name ?? ''
  const now = done ? { at: clock(), by } : null
  if (!setTaskDone(db, idOf(event), idOf(event, 'task'), now)) throw notFound('This task is gone.')
  return { ok: true }
})
