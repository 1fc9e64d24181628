import { updateMailing } from '~~/database/mailings'

/** Takes back that blockers were let pass. */
export default defineEventHandler((event) => {
  updateMailing(satchel().db, unsentMailingOf(event).id, { overruled: null })
  return { ok: true }
})
