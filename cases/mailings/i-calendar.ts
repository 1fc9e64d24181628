import ical from 'ical-generator'
import { dayOf, DAY } from '../../core/time'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import { mailingsBetween, timeOf } from '../../database/calendar'

/** A mailing takes so long in a calendar; what it really takes hangs on its pace. */
const SHOWN_MINUTES = 30

/** What is planned and what went out lately, as iCalendar (RFC 5545). */
export function iCalendar(db: Database, url: string, now: number): string {
  const { name, zone } = readAccount(db)!
  const calendar = ical({
    name: `Mail of ${name}`,
    prodId: { company: 'Satchel', product: 'Mail' },
  })
  for (const mailing of mailingsBetween(
    db,
    dayOf(now - 30 * DAY, zone),
    dayOf(now + 400 * DAY, zone),
  )) {
    const start = timeOf(mailing)
    calendar.createEvent({
      id: `mailing-${mailing.id}@${new URL(url).hostname}`,
      start: new Date(start),
      end: new Date(start + SHOWN_MINUTES * 60_000),
      summary: mailing.name,
      description: mailing.subject,
      url: `${url}/mail/${mailing.id}`,
      stamp: new Date(mailing.created_at),
    })
  }
  return calendar.toString()
}
