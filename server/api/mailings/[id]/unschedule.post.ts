import { callBack } from '~~/cases/mailings'

/** Takes a scheduled or held mailing back to a draft. */
export default defineEventHandler((event) => {
  dispatchedMailingOf(event)
  const { id } = unsentMailingOf(event)
  if (!callBack(satchel().db, id)) throw refused('This mailing is not scheduled.')
  return { ok: true }
})
