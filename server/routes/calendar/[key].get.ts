import { iCalendar } from '~~/cases/mailings'
/** What is planned, for whoever was given the calendar's address. */
export default defineEventHandler((event) => {
  if (!isCalendarKey(getRouterParam(event, 'key')!)) return noSuchLink(event)
  setResponseHeaders(event, {
    'Content-Type': 'text/calendar; charset=utf-8',
    'Cache-Control': 'no-store',
  })
  const { db, url, clock } = satchel()
  return iCalendar(db, url, clock())
})
