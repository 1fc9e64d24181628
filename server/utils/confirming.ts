import type { H3Event } from 'h3'
import { toldIn } from '~~/core/readers'
import { readerWords, requestOf } from '~~/database/readers'
import { toldTo } from '~~/cases/readers'

/** What a mailed link is to confirm, and in which language it was asked; null where it works no more. */
export function confirmingOf(event: H3Event) {
  const { db, hostClock } = satchel()
  const secret = getRouterParam(event, 'secret')!
  const request = /^[\w-]{32}$/.test(secret) ? requestOf(db, secret, hostClock()) : null
  if (!request) return null
  const { language } = request
  return { request, told: toldIn(readerWords(db, language), language, account().zone) }
}

/** What a link gets that was used, or whose time has passed. */
export function linkOver(event: H3Event): string {
  return deadPage(event, toldTo(satchel().db, null, null), 'linkOver', 'linkOverAbout')
}
