import { readToken } from '~~/core/delivery'
import { transact } from '~~/database'
import { recordLeaving } from '~~/database/acts'
import { listById } from '~~/database/lists'
import { mailingById } from '~~/database/mailings'
import { changeSubscription } from '~~/database/subscriptions'

/**
 * Leaves the list: by the page's button or by one click of the mail program (RFC 8058). Without
 * cookies and scripts; in force before the next message is claimed. `back` undoes it.
 */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const token = getRouterParam(event, 'token')!
  const of = readToken(publicKey(), 'leave', token)
  const listId = of && mailingById(db, of.mailingId)?.list_id
  const list = listId ? listById(db, listId) : undefined
  if (!of || !list) return noSuchLink(event)
  const form = new URLSearchParams((await readRawBody(event)) ?? '')
  const by = {
    act: 'person' as const,
    ref: String(of.mailingId),
    ip: getRequestIP(event) ?? null,
    agent: getHeader(event, 'user-agent') ?? null,
  }
  if (form.get('back') === 'yes') {
    changeSubscription(
      db,
      of.personId,
      list.id,
      'subscribed',
      {
        ...by,
        way: 'unsubscribe page, taken back',
        wording: `That was a mistake, keep sending ${list.public_name}`,
      },
      clock(),
    )
    return publicPage(
      event,
      `You are on ${list.public_name} again`,
      '<p>Nothing is lost. You will get the next one.</p>',
    )
  }
  const way = form.get('List-Unsubscribe') === 'One-Click' ? 'one-click' : 'unsubscribe page'
  transact(db, () => {
    const state = changeSubscription(
      db,
      of.personId,
      list.id,
      'unsubscribed',
      { ...by, way },
      clock(),
    )
    if (state === 'unsubscribed') recordLeaving(db, of.mailingId, of.personId, clock())
  })
  return publicPage(
    event,
    `You have left ${list.public_name}`,
    `<p>${escapeText(account().name)} does not send it to you any more.</p><form method="post" action="/u/${token}"><input type="hidden" name="back" value="yes"><button class="quiet">That was a mistake, keep sending ${escapeText(list.public_name)}</button></form>`,
  )
})
