import { mailingsBetween, timeOf } from '~~/database/calendar'
import { wishOf, planOf } from '~~/database/mailings'

/** What goes out within some days, and the address of the calendar for other programs. */
export default defineEventHandler((event) => {
  const { from, to } = daysFrom(event)
  const { zone } = account()
  return {
    mailings: mailingsBetween(satchel().db, from, to).map((mailing) => ({
      id: mailing.id,
      name: mailing.name,
      state: mailing.state,
      held_by: mailing.held_by,
      at: timeOf(mailing),
      wish: mailing.state === 'scheduled' ? wishOf(mailing, zone) : null,
      localTime: planOf(mailing).pace === 'local-time',
    })),
    address: calendarAddress(),
  }
})
