import { readToken } from '~~/core/delivery'
import { leaveReasons } from '~~/core/results'
import { transact } from '~~/database'
import { recordLeaving } from '~~/database/sending'
import { tellWhyLeft, listById, changeSubscription } from '~~/database/people'
import { mailingById } from '~~/database/mailings'

/**
 * Leaves the list: by the page's button or by one click of the mail program (RFC 8058). Without
 * cookies and scripts; in force before the next message is claimed. `back` undoes it.
 */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const token = getRouterParam(event, 'token')!
  const of = readToken(publicTokens(), 'leave', token)
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
  const reason = leaveReasons.find(({ key }) => key === form.get('why'))
  if (reason) {
    const words = (form.get('words') ?? '').trim().slice(0, 500)
    tellWhyLeft(db, of.mailingId, of.personId, reason.key, words, clock())
    return publicPage(
      event,
      'Thank you',
      `<p>You are unsubscribed from ${escapeText(list.public_name)}, and nothing more comes.</p>`,
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
    `You are unsubscribed from ${list.public_name}`,
    `<p>${escapeText(account().name)} does not send it to you any more.</p>${askWhy(token)}<form method="post" action="/u/${token}"><input type="hidden" name="back" value="yes"><button class="quiet">That was a mistake, keep sending ${escapeText(list.public_name)}</button></form>`,
  )
})

/** Whoever has left may say why; they need not. */
function askWhy(token: string): string {
  const reasons = leaveReasons
    .map(
      ({ key, name }) =>
        `<label class="line"><input type="radio" name="why" value="${key}" required> ${name}</label>`,
    )
    .join('')
  return `<form method="post" action="/u/${token}"><fieldset><legend>Would you say why?</legend>${reasons}<label class="line">In your words <input name="words" maxlength="500"></label></fieldset><button>Say why</button></form>`
}
