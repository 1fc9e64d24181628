import { addReport } from '~~/database/sending'

const LARGEST = 1024 * 1024

/** Takes a bounce or complaint from a mail server, as a whole message, for the engine to read. */
export default defineEventHandler(async (event) => {
  const { db, clock, reportsKey } = satchel()
  if (!sameSecret(getRouterParam(event, 'key')!, reportsKey)) return noSuchLink(event)
  const raw = await readRawBody(event, 'latin1')
  if (!raw || raw.length > LARGEST)
    throw createError({ statusCode: 413, message: 'A report has between 1 byte and 1 MB.' })
  addReport(db, raw, clock())
  setResponseStatus(event, 202)
  return { ok: true }
})
