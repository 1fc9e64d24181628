import type { H3Event } from 'h3'
import { noteDeed } from '~~/database/account'

/** Notes in the audit log who did what, from where; with `within`, at most once in so many ms. */
export function noteWhat(
  event: H3Event,
  who: { id: number | null; name: string },
  did: string,
  what: string,
  within?: number,
) {
  const { db, hostClock } = satchel()
  const deed = { userId: who.id, userName: who.name, did, what, ...fromOf(event) }
  noteDeed(db, deed, hostClock(), within)
}
