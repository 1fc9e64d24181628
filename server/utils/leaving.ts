import type { H3Event } from 'h3'
import { makeToken, readToken, type Addressed } from '~~/core/delivery'
import type { Told } from '~~/core/readers'
import { mailingById } from '~~/database/mailings'
import { listById, personNow } from '~~/database/people'
import { toldTo } from '~~/cases/readers'

/** Who is about to leave which list, by a letter's link, and how they are spoken to. */
export interface Leaving {
  of: Addressed
  list: NonNullable<ReturnType<typeof listById>>
  told: Told
  sender: string
}

/** Whose link to unsubscribe was opened; null where it is none of ours. */
export function leavingOf(event: H3Event): Leaving | null {
  const { db } = satchel()
  const of = readToken(publicTokens(), 'leave', getRouterParam(event, 'token')!)
  const listId = of && mailingById(db, of.mailingId)?.list_id
  const list = listId ? listById(db, listId) : undefined
  if (!of || !list) return null
  const personId = personNow(db, of.personId)
  return {
    of: { ...of, personId },
    list,
    told: toldTo(db, personId, list.id),
    sender: account().name,
  }
}

/** The button that undoes it. */
export const keepSending = ({ told, list }: Leaving) =>
  `<form method="post"><input type="hidden" name="back" value="yes"><button class="quiet">${told.html('mistake', { list: list.public_name })}</button></form>`

/** The way to their own page, where there is less than nothing at all to choose. */
export function toOwnPage({ of, told }: Leaving): string {
  const token = makeToken(publicKey(), 'reader', of.mailingId, of.personId, of.round)
  return `<p><a href="/r/${token}">${told.html('yourPage')}</a></p>`
}
