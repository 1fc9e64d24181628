import { toldIn } from '../../core/readers'
import { escapeHtml } from '../../core/letters/parts'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import { readerWords, type OwnRequest, type Request } from '../../database/readers'

const words = {
  known: ['mailKnownSubject', 'mailKnown'],
  erase: ['mailEraseSubject', 'mailErase'],
  address: ['mailAddressSubject', 'mailAddress'],
  'address-back': ['mailChangedSubject', 'mailChanged'],
} as const satisfies Record<OwnRequest, unknown>

/** The mail that confirms what a reader asked for: one link, and nothing that is counted. `url`: where this Satchel is reached. */
export function requestMail(db: Database, request: Request & { secret: string }, url: string) {
  const account = readAccount(db)!
  const told = toldIn(readerWords(db, request.language), request.language, account.zone)
  const [subject, about] = words[request.kind]
  const sender = account.name
  const link = `${url}/r/confirm/${request.secret}`
  // The last one says itself what to do if it was not they.
  const notYou = request.kind === 'address-back' ? '' : told.plain('notYou')
  const lines = [told.plain(about, { sender }), link, notYou, sender, account.postal_address]
  const { ground, paper, ink, accent, textFont } = account.letterhead
  const paragraph = (html: string) => `<p style="margin:0 0 16px">${html}</p>`
  return {
    subject: told.plain(subject, { sender }),
    text: `${lines.filter(Boolean).join('\n\n')}\n`,
    html: `<!doctype html><html lang="${told.language}"><body style="margin:0;padding:24px 12px;background:${ground};color:${ink};font:16px/1.55 ${escapeHtml(textFont)}"><div style="max-width:520px;margin:0 auto;padding:28px 28px 12px;background:${paper}">${paragraph(escapeHtml(told.plain(about, { sender })))}${paragraph(`<a href="${link}" style="color:${accent};word-break:break-all">${link}</a>`)}${notYou && paragraph(escapeHtml(notYou))}${paragraph(`${escapeHtml(sender)}<br>${escapeHtml(account.postal_address).replaceAll('\n', '<br>')}`)}</div></body></html>`,
  }
}
