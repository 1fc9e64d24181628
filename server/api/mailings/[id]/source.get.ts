import MailComposer from 'nodemailer/lib/mail-composer'
import { outgoingOf } from '~~/cases/letters'
import { withLetterInside } from '~~/core/letters/incoming'
import { letterSource, mergeLetter, personContext } from '~~/core/letters/rendering'
import { letterOf } from '~~/database/letters'
import { senderOf } from '~~/database/mailings'

const types = {
  html: 'text/html',
  mjml: 'text/plain',
  text: 'text/plain',
  json: 'application/json',
  eml: 'message/rfc822',
} as const

/** The letter as a file: HTML, MJML, plain text, the document as JSON, or a whole message (EML). */
export default defineEventHandler(async (event) => {
  const { db, url } = satchel()
  const mailing = mailingOf(event)
  const format = String(getQuery(event).format ?? 'html') as keyof typeof types
  if (!(format in types))
    throw createError({
      statusCode: 422,
      message: `There are ${Object.keys(types).join(', ')}.`,
    })
  const { letter, frame, compiled: made } = outgoingOf(db, mailing, url)
  const name = mailing.name.replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'letter'
  const ending = format === 'text' ? 'txt' : format
  setResponseHeaders(event, {
    'Content-Type': `${types[format]}; charset=utf-8`,
    'Content-Disposition': `attachment; filename="letter.${ending}"; filename*=UTF-8''${encodeURIComponent(`${name}.${ending}`)}`,
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'no-store',
  })
  if (format === 'json') {
    const { version: _version, ...own } = letterOf(db, mailing.letter_id)
    return JSON.stringify(own, null, 2)
  }
  if (format === 'text') return letterSource(letter, frame, format)
  if (format !== 'eml') {
    const { version: _version, ...own } = letterOf(db, mailing.letter_id)
    return withLetterInside(await letterSource(letter, frame, format), own, format)
  }
  const compiled = await madeOrRefused(made())
  const context = personContext(
    { address: 'reader@letters.example', values: {} },
    { list: frame.listName, sender: frame.senderName, mailing: mailing.name },
  )
  const { subject, html, text } = mergeLetter(compiled, context)
  const from = senderOf(db, mailing)
  const message = new MailComposer({
    from: { name: from.name, address: from.address },
    to: 'reader@letters.example',
    subject,
    html,
    text,
  })
  return message.compile().build()
})
