import { makeToken } from '../../core/delivery'
import { escapeHtml } from '../../core/letters/parts'
import { toldIn, type ReaderLanguage, type Told } from '../../core/readers'
import {
  consentsOf,
  drawnLook,
  firstLanguage,
  senderLine,
  wordsFor,
  type SignUpForm,
  type Words,
} from '../../core/sign-ups'
import type { Database } from '../../database'
import { readAccount, type Account } from '../../database/account'
import { readerWords } from '../../database/readers'
import { formOfVersion, type Sending, type SignUpMail } from '../../database/sign-ups'

/** A mail to who sent a form in, from which nothing is counted. */
export interface WrittenMail {
  subject: string
  text: string
  html: string
}

/** The mail that is due to a sending; null where its form is gone. `url`: where this Satchel is reached. */
export function signUpMail(
  db: Database,
  sending: Sending & { mail: SignUpMail; secret: string },
  url: string,
): WrittenMail | null {
  const form = formOfVersion(db, sending.sign_up_id, sending.version)
  if (!form) return null
  const { mail, language, ticked, address } = sending
  return mailBy(db, form, mail, {
    ...{ language, ticked, address },
    link: `${url}/s/confirm/${sending.secret}`,
    promised: promisedLink(db, form, sending.id, url),
    until: sending.over_due ?? sending.at,
  })
}

/** Where somebody gets what a form promises: elsewhere, or a file of ours by a link of their own; empty: nothing is promised. */
export function promisedLink(
  db: Database,
  { promised }: SignUpForm,
  sendingId: number,
  url: string,
): string {
  if (promised.fileId === null) return promised.url
  const key = Buffer.from(readAccount(db)!.token_key, 'hex')
  return `${url}/s/file/${makeToken(key, 'file', promised.fileId, sendingId)}`
}

/** For whom a mail is written: in which language, what they ticked, and the link that confirms it. */
export interface MailReader {
  language: ReaderLanguage
  ticked: readonly string[]
  address: string
  link: string
  /** Where they get what was promised; empty where nothing is. */
  promised: string
  until: number
}

/** A mail of a form, as it goes to somebody; null before there is an account. */
export function mailBy(
  db: Database,
  form: SignUpForm,
  mail: SignUpMail,
  { language, ticked, address, link, promised, until }: MailReader,
): WrittenMail | null {
  const account = readAccount(db)
  if (!account) return null
  const told = toldIn(readerWords(db, language), language, account.zone)
  const names = { sender: account.name, address }
  const own = (words: Words) => wordsFor(words, language, firstLanguage(form))
  const letter = (content: Content) => written(told, content, account, form)
  if (mail === 'already')
    return letter({
      subject: told.plain('alreadySubject'),
      paragraphs: [told.plain('alreadyText', names)],
    })
  if (mail === 'promised')
    return letter({
      subject: own(form.promised.name) || told.plain('promisedText'),
      paragraphs: [told.plain('promisedText')],
      button: { label: own(form.promised.name) || promised, href: promised },
    })
  const subject = own(form.letter.subject) || told.plain('confirmSubject')
  return letter({
    subject: mail === 'remind' ? `${told.plain('confirmRemind')} ${subject}` : subject,
    paragraphs: [own(form.letter.text) || told.plain('confirmText', names)],
    agreed: consentsOf(form, ticked, language).map(({ wording }) => wording),
    button: { label: own(form.letter.button) || told.plain('confirmButton'), href: link },
    small: told.plain('confirmLapses', { date: told.day(until) }),
  })
}

interface Content {
  subject: string
  paragraphs: string[]
  /** What they agreed to, word for word. */
  agreed?: string[]
  button?: { label: string; href: string }
  small?: string
}

function written(
  told: Told,
  { subject, paragraphs, agreed = [], button, small }: Content,
  account: Account,
  form: SignUpForm,
): WrittenMail {
  const { ground, size } = account.letterhead
  const { paper, ink, accent, onAccent, headingFont, textFont, corner } = drawnLook(
    form,
    account.letterhead,
  )
  const sign = [senderLine({ name: account.name, postalAddress: account.postal_address })]
  const text = [
    ...paragraphs,
    ...(agreed.length ? [told.plain('confirmAgreed'), ...agreed.map((one) => `– ${one}`)] : []),
    ...(button ? [`${button.label}:\n${button.href}`] : []),
    ...(small ? [small] : []),
    sign.join('\n'),
  ]
  const paragraph = (html: string, style = '') => `<p style="margin:0 0 18px;${style}">${html}</p>`
  const lines = (plain: string) => escapeHtml(plain).replaceAll('\n', '<br>')
  const list = agreed.length
    ? `${paragraph(`<b>${told.html('confirmAgreed')}</b>`, 'margin-bottom:8px')}<ul style="margin:0 0 20px;padding:0 0 0 22px">${agreed
        .map((one) => `<li style="margin:0 0 6px">${lines(one)}</li>`)
        .join('')}</ul>`
    : ''
  const pressed = button
    ? `<table role="presentation" cellspacing="0" cellpadding="0" style="margin:4px 0 22px"><tr><td style="background:${accent};border-radius:${Math.min(corner, 22)}px"><a href="${escapeHtml(button.href)}" style="display:inline-block;padding:13px 26px;color:${onAccent};font-weight:bold;text-decoration:none">${escapeHtml(button.label)}</a></td></tr></table>`
    : ''
  return {
    subject,
    text: `${text.join('\n\n')}\n`,
    html: `<!doctype html><html lang="${told.language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${escapeHtml(subject)}</title></head><body style="margin:0;padding:28px 12px;background:${ground};color:${ink};font:${size}px/1.6 ${escapeHtml(textFont)}"><div style="max-width:520px;margin:0 auto;padding:34px 36px 18px;background:${paper}"><h1 style="margin:0 0 16px;font:bold 24px/1.25 ${escapeHtml(headingFont)};color:${ink}">${escapeHtml(subject)}</h1>${paragraphs.map((one) => paragraph(lines(one))).join('')}${list}${pressed}${small ? paragraph(escapeHtml(small), 'font-size:13px') : ''}<p style="margin:26px 0 18px;padding-top:16px;border-top:1px solid #00000022;font-size:13px">${sign.map(lines).join('<br>')}</p></div></body></html>`,
  }
}
