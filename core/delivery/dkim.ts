import { createHash } from 'node:crypto'
import { bytesOf, type InBytes, type RawMessage } from './raw-message'

/** The fields that are signed: what readers see, and what RFC 8058 wants signed. */
const signed = new Set([
  'from',
  'to',
  'subject',
  'date',
  'message-id',
  'mime-version',
  'content-type',
  'list-id',
  'list-unsubscribe',
  'list-unsubscribe-post',
  'feedback-id',
])

/** Signs an ASCII text with RSA and SHA-256; base64. Given, since it may be done by other threads. */
export type SignText = (text: string) => Promise<string>

/** As long as the signature's field may be: RSA 4096, and names of any length that the DNS has. */
const ROOM = 2_048

/**
 * A message with its DKIM-Signature before it, as bytes (RFC 6376; rsa-sha256, header relaxed, body simple). `at`: when it
 * is signed, ms. What stands after the message (`end`) is not signed.
 */
export async function signMessage(
  raw: RawMessage,
  by: { domain: string; selector: string },
  sign: SignText,
  at: number,
  inBytes: Omit<InBytes, 'room'> = {},
): Promise<Buffer> {
  const { bytes, bodyStart, bodyEnd } = bytesOf(raw, { ...inBytes, room: ROOM })
  const fields = fieldsOf(raw.head).filter(({ name }) => signed.has(name))
  const head = [
    `DKIM-Signature: v=1; a=rsa-sha256; c=relaxed/simple; d=${by.domain}; s=${by.selector};`,
    ` t=${Math.floor(at / 1000)};`,
    ` h=${fields.map(({ name }) => name).join(':')};`,
    ` bh=${bodyHash(bytes.subarray(bodyStart, bodyEnd))};`,
    ' b=',
  ].join('\r\n')
  const signature = await sign(
    // The signature's own field comes last, with an empty b= and without a CRLF (3.7).
    fields.map(relaxed).join('') + relaxed(fieldsOf(`${head}\r\n`)[0]!).slice(0, -2),
  )
  const field = `${head}${folded(signature)}\r\n`
  bytes.write(field, ROOM - field.length, 'latin1')
  return bytes.subarray(ROOM - field.length)
}

interface Field {
  /** In lower case. */
  name: string
  /** After the colon, folded as it stands, without the CRLF at its end. */
  value: string
}

/** The fields of a header, in their order; a line that begins with white space goes on with the one before. */
function fieldsOf(head: string): Field[] {
  return head
    .split(/\r\n(?![ \t])/)
    .filter(Boolean)
    .map((field) => {
      const colon = field.indexOf(':')
      return { name: field.slice(0, colon).trim().toLowerCase(), value: field.slice(colon + 1) }
    })
}

/** Relaxed (3.4.2): unfolded, runs of white space are one space, none at the ends. */
function relaxed({ name, value }: Field): string {
  const oneLine = /[\r\n\t]|  /.test(value)
    ? value.replace(/[\r\n]/g, '').replace(/[ \t]+/g, ' ')
    : value
  return `${name}:${oneLine.trim()}\r\n`
}

const CRLF = Buffer.from('\r\n')

/** Simple (3.4.3): as it is, with just one CRLF at its end. */
function bodyHash(body: Buffer): string {
  let end = body.length
  while (end >= 2 && body[end - 2] === 13 && body[end - 1] === 10) end -= 2
  return createHash('sha256').update(body.subarray(0, end)).update(CRLF).digest('base64')
}

/** In lines of 72 characters. */
function folded(base64: string): string {
  return (base64.match(/.{1,72}/g) ?? []).join('\r\n ')
}
