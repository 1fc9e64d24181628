import { dataOutById } from '~~/database/data-outs'

/** The file with the data. */
export default defineEventHandler((event) => {
  const out = dataOutById(satchel().db, idOf(event))
  if (!out) throw notFound('This file is gone.')
  return sendDataOut(event, out)
})
