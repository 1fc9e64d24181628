import type { H3Event } from 'h3'
import { makeToken } from '~~/core/delivery'
import { toldIn } from '~~/core/readers'
import { consentsOf, firstLanguage, wordsFor } from '~~/core/sign-ups'
import { isPromised, promisedLink, type Confirmed } from '~~/cases/sign-ups'
import { personByAddress } from '~~/database/people'
import { readerWords } from '~~/database/readers'
import { formOfVersion, sendingOfLink } from '~~/database/sign-ups'

/** What a confirming letter's link is about, and how its reader is spoken to; null where it is none of ours. */
export function confirmedSending(event: H3Event) {
  const { db } = satchel()
  const secret = getRouterParam(event, 'secret')!
  const sending = /^[\w-]{32}$/.test(secret) ? sendingOfLink(db, secret) : null
  const form = sending && formOfVersion(db, sending.sign_up_id, sending.version)
  if (!sending || !form) return null
  const { language } = sending
  return { sending, form, told: toldIn(readerWords(db, language), language, account().zone) }
}

/** Says what came of the press, with what was promised and the way to their own page. */
export function sayConfirmed(
  event: H3Event,
  { sending, form, told }: NonNullable<ReturnType<typeof confirmedSending>>,
  came: Confirmed,
): string {
  if (came === 'over') return linkOver(event)
  const { language } = told
  // Where another page is named, that is what they see, once.
  if (came === 'confirmed' && form.confirmed.url) {
    void sendRedirect(event, form.confirmed.url, 303)
    return ''
  }
  if (came === 'suppressed' || came === 'left')
    return publicPage(event, {
      title: told.plain('confirmTitle'),
      body: `<p>${told.html(came === 'left' ? 'confirmLeft' : 'confirmSuppressed')}</p>`,
      language,
    })
  const own = (words: Parameters<typeof wordsFor>[0]) =>
    escapeText(wordsFor(words, language, firstLanguage(form)))
  const consents = consentsOf(form, sending.ticked, language)
  const url = promisedLink(satchel().db, form, sending.id, satchel().url)
  const promised = isPromised(form, consents)
    ? `<p>${told.html('promisedText')} <a href="${escapeText(url)}" rel="noopener">${own(form.promised.name) || escapeText(url)}</a></p>`
    : ''
  const person = personByAddress(satchel().db, sending.normal)
  const page = person
    ? `<p><a href="/r/${makeToken(publicKey(), 'reader', 0, person)}">${told.html('yourPage')}</a></p>`
    : ''
  const title = wordsFor(form.confirmed.title, language, firstLanguage(form))
  return publicPage(event, {
    title: title || told.plain('confirmDone'),
    body: `<p style="white-space:pre-line">${own(form.confirmed.text)}</p>${promised}${page}`,
    language,
  })
}
