import { removeDataSchedule } from '~~/database/exports'

/** Ends a schedule; what it made stays. */
export default defineEventHandler((event) => {
  if (!removeDataSchedule(satchel().db, idOf(event))) throw notFound('This schedule is gone.')
  return {}
})
