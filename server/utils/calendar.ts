import type { H3Event } from 'h3'
import { dayOf, DAY, isDay, type Day } from '~~/core/time'
import { makeToken, readToken } from '~~/core/delivery'

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
