import { removeOwnWord } from '~~/database/letters'

export default defineEventHandler((event) => {
  const word = decodeURIComponent(getRouterParam(event, 'word')!)
  if (!removeOwnWord(satchel().db, word)) throw notFound('This word is not among yours.')
  return { ok: true }
})
