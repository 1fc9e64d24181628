import { readAccount } from '~~/database/account'
import { liveEngines } from '~~/database/jobs'

/** Whether web, engine and database are alive; 503 where one is not. */
export default defineEventHandler((event) => {
  let database = false
  let engine = false
  try {
    const { db, data, hostClock } = satchel()
    readAccount(db)
    engine = liveEngines(data, hostClock(), 10_000).some((id) => id.startsWith('engine-'))
    database = true
  } catch {
    // Said below.
  }
  const ok = database && engine
  setResponseStatus(event, ok ? 200 : 503)
  return { ok, web: true, engine, database }
})
