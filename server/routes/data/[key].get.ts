import { dataOutByKey } from '~~/database/exports'

/** The file with the data, for whoever was sent its address. */
export default defineEventHandler(async (event) => {
  const key = getRouterParam(event, 'key')!
  const out = /^[0-9a-f]{48}$/.test(key) ? dataOutByKey(satchel().db, key) : undefined
  const file = out && (await dataOutFile(out))
  if (!out || !file) return noSuchLink(event)
  return sendDataOut(event, file, out)
})
