import { leaveReasons, type LeaveReason } from '~~/core/results'
import type { ReaderWords } from '~~/core/readers'
import { transact } from '~~/database'
import { recordLeaving } from '~~/database/sending'
import { tellWhyLeft, changeSubscription } from '~~/database/people'

/**
 * Leaves the list: by the page's button or by one click of the mail program (RFC 8058). Without
 * cookies and scripts; in force before the next message is claimed. `back` undoes it.
 */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const leaving = leavingOf(event)
  if (!leaving) return noSuchLink(event)
  const { of, list, told, sender } = leaving
  const { personId } = of
  const names = { list: list.public_name, sender }
  const page = (title: keyof ReaderWords, body: string) =>
    publicPage(event, { title: told.plain(title, names), body, language: told.language })
  const form = new URLSearchParams((await readRawBody(event)) ?? '')
  const by = { act: 'person' as const, ref: String(of.mailingId), ...fromWhere(event) }
  if (form.get('back') === 'yes') {
    const way = 'unsubscribe page, taken back'
    const wording = told.plain('mistake', names)
    changeSubscription(db, personId, list.id, 'subscribed', { ...by, way, wording }, clock())
    return page('onListAgain', `<p>${told.html('nothingLost')}</p>${toOwnPage(leaving)}`)
  }
  const reason = leaveReasons.find(({ key }) => key === form.get('why'))
  if (reason) {
    const words = (form.get('words') ?? '').trim().slice(0, 500)
    tellWhyLeft(db, of, reason.key, words, clock())
    return page('thanks', `<p>${told.html('nothingMore', names)}</p>`)
  }
  const way = form.get('List-Unsubscribe') === 'One-Click' ? 'one-click' : 'unsubscribe page'
  transact(db, () => {
    const state = changeSubscription(db, personId, list.id, 'unsubscribed', { ...by, way }, clock())
    if (state === 'unsubscribed') recordLeaving(db, of, clock())
  })
  return page(
    'unsubscribed',
    `<p>${told.html('notSentAnyMore', names)}</p>${askWhy(leaving)}${keepSending(leaving)}${toOwnPage(leaving)}`,
  )
})

const reasonWords: Record<LeaveReason, keyof ReaderWords> = {
  'too-many': 'whyTooMany',
  'not-for-me': 'whyNotForMe',
  'never-asked': 'whyNeverAsked',
  elsewhere: 'whyElsewhere',
  other: 'whyOther',
}

/** Whoever has left may say why; they need not. */
function askWhy({ told }: Leaving): string {
  const reasons = leaveReasons
    .map(
      ({ key }) =>
        `<label class="line"><input type="radio" name="why" value="${key}" required> ${told.html(reasonWords[key])}</label>`,
    )
    .join('')
  return `<form method="post"><fieldset><legend>${told.html('askWhy')}</legend>${reasons}<label class="line">${told.html('ownWords')} <input name="words" maxlength="500"></label></fieldset><button>${told.html('sayWhy')}</button></form>`
}
