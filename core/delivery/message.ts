import type { Replies } from '../senders'
import { encodeAddressName, encodeHeaderText } from './header-text'
import { quotedPrintable } from './quoted-printable'
import type { RawMessage } from './raw-message'
import { makeToken } from './token'

/** Who sends: as shown to the reader, and the domain that signs and takes bounces. */
export interface Sender {
  name: string
  address: string
  /** Public address of this installation, without a slash at the end. */
  url: string
  /** Names the list in `List-Id` (RFC 2919). */
  list: { key: string; name: string }
  /** `kept`: replies come to an address of the recipient's own in the sender's domain, which we read. */
  replies: Replies
}

export interface Recipient {
  personId: number
  /** Of their rounds in the mailing's sequence; absent: the first, or of no sequence. */
  round?: number
  address: string
  name: string
}

/** A place in a letter that differs per recipient; or a part of it that only some get: see `shown` of {@link pourMessage}. */
export type Slot =
  | { fill: number }
  | { link: number }
  /** A link whose number is the reader's own: that of fill-in n. */
  | { own: number }
  | { leave: true }
  /** The link to the reader's own page. */
  | { yourPage: true }
  | { open: true }
  | { when: number; pieces: (string | Slot)[] }
type Value = Exclude<Slot, { when: number }>

/** What a fill-in says to one reader, and the number of the link it leads by, if it does. */
export interface Fill {
  html: string
  text: string
  link?: number
}

/** A letter cut into what is the same for everybody and what is not. */
export interface MessageParts {
  subject: (string | Slot)[]
  html: (string | Slot)[]
  text: (string | Slot)[]
}

/** A letter with all that is the same for everybody already encoded; see {@link pourMessage}. */
export interface MessageMould {
  mailingId: number
  key: Buffer
  sender: Sender
  domain: string
  boundary: string
  from: string
  listId: string
  parts: MessageParts
  subjectIsFixed: string | null
}

/**
 * Prepares a letter for its recipients. The static pieces are encoded once: a slot stands between
 * soft line breaks, so a piece's encoding does not depend on what is filled in before it.
 */
export function mouldMessage(
  mailingId: number,
  parts: MessageParts,
  sender: Sender,
  key: Buffer,
): MessageMould {
  const domain = sender.address.slice(sender.address.indexOf('@') + 1)
  return {
    mailingId,
    key,
    sender,
    domain,
    boundary: `=_satchel-${mailingId.toString(36)}`,
    from: `${encodeAddressName(sender.name)} <${sender.address}>`.trim(),
    listId: `${encodeAddressName(sender.list.name)} <${sender.list.key}.${domain}>`,
    parts: {
      subject: parts.subject,
      html: encodePieces(parts.html),
      text: encodePieces(parts.text),
    },
    subjectIsFixed: parts.subject.every((piece) => typeof piece === 'string')
      ? encodeHeaderText(parts.subject.join(''))
      : null,
  }
}

/** The message for one recipient and its return path. */
export interface PouredMessage {
  raw: RawMessage
  returnPath: string
  messageId: string
}

/**
 * Fills a mould for one recipient. `fills[n]` is the text of fill-in n, as it goes into HTML
 * (escaped) and as plain text, with a link's number where it is one of their own; `shown[n]` says whether condition n holds for them.
 */
export function pourMessage(
  mould: MessageMould,
  recipient: Recipient,
  fills: readonly Fill[],
  now: number,
  shown: readonly boolean[] = [],
): PouredMessage {
  const { key, mailingId, sender, domain, boundary } = mould
  const token = (kind: 'open' | 'click' | 'leave' | 'reader' | 'bounce' | 'message') =>
    makeToken(key, kind, mailingId, recipient.personId, recipient.round)
  const click = `${sender.url}/c/${token('click')}`
  const leave = `${sender.url}/u/${token('leave')}`
  const open = `${sender.url}/o/${token('open')}.gif`
  const bounce = token('bounce')
  const valueOf = (slot: Value, as: 'html' | 'text'): string => {
    if ('fill' in slot) return fills[slot.fill]![as]
    if ('link' in slot) return `${click}/${slot.link}`
    if ('own' in slot) return `${click}/${fills[slot.own]!.link ?? ''}`
    if ('yourPage' in slot) return `${sender.url}/r/${token('reader')}`
    return 'leave' in slot ? leave : open
  }
  const subject =
    mould.subjectIsFixed ??
    encodeHeaderText(
      mould.parts.subject
        .map((piece) => (typeof piece === 'string' ? piece : valueOf(piece as Value, 'text')))
        .join(''),
    )
  const name = encodeAddressName(recipient.name)
  const messageId = `<${token('message')}@${domain}>`
  const head = [
    `From: ${mould.from}`,
    `To: ${name ? `${name} <${recipient.address}>` : recipient.address}`,
    `Subject: ${subject}`,
    ...replyTo(sender.replies, `r-${bounce}@${domain}`),
    `Date: ${new Date(now).toUTCString().replace('GMT', '+0000')}`,
    `Message-ID: ${messageId}`,
    'MIME-Version: 1.0',
    `List-Id: ${mould.listId}`,
    `List-Unsubscribe: <${leave}>,\r\n <mailto:leave-${bounce}@${domain}?subject=leave>`,
    'List-Unsubscribe-Post: List-Unsubscribe=One-Click',
    `Feedback-ID: ${mailingId}:${sender.list.key}:mailing:${domain}`,
    `Content-Type: multipart/alternative; boundary="${boundary}"`,
    '',
  ].join('\r\n')
  const body: string[] = []
  body.push(`--${boundary}\r\n${partHead('text/plain')}`)
  pourPieces(mould.parts.text, shown, (slot) => valueOf(slot, 'text'), body)
  body.push(`\r\n--${boundary}\r\n${partHead('text/html')}`)
  pourPieces(mould.parts.html, shown, (slot) => valueOf(slot, 'html'), body)
  body.push(`\r\n--${boundary}--\r\n`)
  return { raw: { head, body }, returnPath: `b-${bounce}@${domain}`, messageId }
}

/** The field that says where answers go, where it is not the sender's address. */
function replyTo(replies: Replies, kept: string): string[] {
  if (replies === 'sender') return []
  return [`Reply-To: ${replies === 'kept' ? kept : replies}`]
}

const partHead = (type: string) =>
  `Content-Type: ${type}; charset=utf-8\r\nContent-Transfer-Encoding: quoted-printable\r\n\r\n`

/** A letter's parts with the numbers of its links counted from another one than 0. */
export function withLinksFrom(parts: MessageParts, first: number): MessageParts {
  const shift = (pieces: (string | Slot)[]): (string | Slot)[] =>
    pieces.map((piece) => {
      if (typeof piece === 'string') return piece
      if ('when' in piece) return { ...piece, pieces: shift(piece.pieces) }
      return 'link' in piece ? { link: piece.link + first } : piece
    })
  return first === 0
    ? parts
    : { subject: parts.subject, html: shift(parts.html), text: shift(parts.text) }
}

function encodePieces(pieces: (string | Slot)[]): (string | Slot)[] {
  return pieces.map((piece) => {
    if (typeof piece === 'string') return quotedPrintable(piece)
    return 'when' in piece ? { ...piece, pieces: encodePieces(piece.pieces) } : piece
  })
}

function pourPieces(
  pieces: (string | Slot)[],
  shown: readonly boolean[],
  valueOf: (slot: Value) => string,
  into: string[],
) {
  for (const piece of pieces) {
    if (typeof piece === 'string') into.push(piece)
    else if (!('when' in piece)) into.push(`=\r\n${quotedPrintable(valueOf(piece))}=\r\n`)
    else {
      // A soft line break even where it is left out: what comes next was encoded from a line's start.
      into.push('=\r\n')
      if (!shown[piece.when]) continue
      pourPieces(piece.pieces, shown, valueOf, into)
      into.push('=\r\n')
    }
  }
}
