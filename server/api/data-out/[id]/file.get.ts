import { dataOutById } from '~~/database/exports'

/** The file with the data. */
export default defineEventHandler(async (event) => {
  const out = dataOutById(satchel().db, idOf(event))
  const file = out && (await dataOutFile(out))
  if (!out || !file) throw notFound('This file is gone.')
  return sendDataOut(event, file, out)
})
