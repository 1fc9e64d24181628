import { readToken } from '~~/core/delivery'
import { listById, subscriptionState } from '~~/database/people'
import { mailingById } from '~~/database/mailings'

/** The page behind "Unsubscribe from …": says which list, and one button unsubscribes. Looking at it changes nothing. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const token = getRouterParam(event, 'token')!
  const of = readToken(publicTokens(), 'leave', token)
  const listId = of && mailingById(db, of.mailingId)?.list_id
  const list = listId ? listById(db, listId) : undefined
  if (!of || !list) return noSuchLink(event)
  const name = escapeText(list.public_name)
  const sender = escapeText(account().name)
  if (subscriptionState(db, of.personId, list.id) === 'unsubscribed')
    return publicPage(
      event,
      `You are unsubscribed from ${list.public_name}`,
      `<p>${sender} does not send it to you any more.</p>${comeBack(token, name)}`,
    )
  return publicPage(
    event,
    `Unsubscribe from ${list.public_name}?`,
    `${list.public_about ? `<p class="small">${name}: ${escapeText(list.public_about)}</p>` : ''}<p>${sender} will not send you <strong>${name}</strong> any more. Other lists you asked for stay as they are.</p>
<form method="post" action="/u/${token}"><input type="hidden" name="leave" value="yes"><button>Unsubscribe</button></form>
<p class="small">It takes effect at once.</p>`,
  )
})

function comeBack(token: string, name: string): string {
  return `<form method="post" action="/u/${token}"><input type="hidden" name="back" value="yes"><button class="quiet">That was a mistake, keep sending ${name}</button></form>`
}
