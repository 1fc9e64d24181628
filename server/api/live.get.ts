import { readClock, sessionGoesOn } from '~~/database/account'

/**
 * Server-sent events: a line whenever something in the database changed, or a costly count can be made anew, at most
 * three a second, with the clock. The page asks again for what it shows; nothing is computed for nobody.
 */
export default defineEventHandler((event) => {
  const { db, clock, hostClock } = satchel()
  const stream = createEventStream(event)
  let seen = -1
  const { user, session } = me(event)
  const look = async () => {
    if (!sessionGoesOn(db, user.id, session.id)) return stream.close()
    // data_version counts the commits of other connections, total_changes() our own.
    const version =
      (db.sqlite.pragma('data_version', { simple: true }) as number) * 1e9 +
      (db.sqlite.prepare('select total_changes() as n').get() as { n: number }).n +
      presenceChanges() +
      costlyCountsOver() +
      readersOver()
    if (version === seen) return
    seen = version
    await stream.push(JSON.stringify({ now: clock(), host: hostClock(), practice: readClock(db) }))
  }
  const timer = setInterval(() => void look(), 350)
  stream.onClosed(async () => {
    clearInterval(timer)
    await stream.close()
  })
  void look()
  return stream.send()
})
