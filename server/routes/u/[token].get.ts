import { subscriptionState } from '~~/database/people'

/** The page behind "Unsubscribe": says which list, and one button unsubscribes. Looking at it changes nothing. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const leaving = leavingOf(event)
  if (!leaving) return noSuchLink(event)
  const { of, list, told, sender } = leaving
  const names = { list: list.public_name, sender }
  const language = told.language
  if (subscriptionState(db, of.personId, list.id) === 'unsubscribed')
    return publicPage(event, {
      title: told.plain('unsubscribed', names),
      body: `<p>${told.html('notSentAnyMore', names)}</p>${keepSending(leaving)}${toOwnPage(leaving)}`,
      language,
    })
  const about = list.public_about
    ? `<p class="small">${escapeText(`${list.public_name}: ${list.public_about}`)}</p>`
    : ''
  return publicPage(event, {
    title: told.plain('askUnsubscribe', names),
    body: `${about}<p>${told.html('onlyThisList', names)}</p>
<form method="post"><input type="hidden" name="leave" value="yes"><button>${told.html('unsubscribe')}</button></form>
<p class="small">${told.html('atOnce')}</p>${toOwnPage(leaving)}`,
    language,
  })
})
