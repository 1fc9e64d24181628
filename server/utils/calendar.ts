import type { H3Event } from 'h3'
import ical from 'ical-generator'
import { dayOf, DAY, isDay, type Day } from '~~/core/time'
import { makeToken, readToken } from '~~/core/delivery'
import { mailingsBetween, timeOf } from '~~/database/mailings'

/** A mailing takes so long in a calendar; what it really takes hangs on its pace. */
const SHOWN_MINUTES = 30

/** What is planned and what went out lately, as iCalendar (RFC 5545). */
export function iCalendar(): string {
  const { db, clock, url } = satchel()
  const { name, zone } = account()
  const now = clock()
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

/** The address at which calendars may fetch it; who has it can read it. */
export function calendarAddress(): string {
  return `${satchel().url}/calendar/${makeToken(publicKey(), 'calendar', 0, 0)}.ics`
}

export function isCalendarKey(key: string): boolean {
  return readToken(publicTokens(), 'calendar', key.replace(/\.ics$/, '')) !== null
}

/** The days a request is about: at most three months. */
export function daysFrom(event: H3Event): { from: Day; to: Day } {
  const { from, to } = getQuery(event)
  if (!isDay(from) || !isDay(to) || to < from) throw refused('Say from which day to which.')
  const latest = dayOf(Date.parse(`${from}T00:00:00Z`) + 92 * DAY, 'UTC')
  return { from, to: to > latest ? latest : to }
}
