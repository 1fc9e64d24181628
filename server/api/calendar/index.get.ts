import { mailingsBetween, timeOf } from '~~/database/calendar'

/** What goes out within some days, and the address of the calendar for other programs. */
export default defineEventHandler((event) => {
  const { from, to } = daysFrom(event)
  return {
    mailings: mailingsBetween(satchel().db, from, to).map((mailing) => ({
      id: mailing.id,
      name: mailing.name,
      state: mailing.state,
      at: timeOf(mailing),
    })),
    address: calendarAddress(),
  }
})
