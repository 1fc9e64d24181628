import { deleteTask } from '~~/database/people'

export default defineEventHandler((event) => {
  if (!deleteTask(satchel().db, idOf(event), idOf(event, 'task')))
    throw notFound('This task is gone already.')
  return { ok: true }
})
