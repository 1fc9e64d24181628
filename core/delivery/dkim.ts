import { createHash } from 'node:crypto'

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

/** Signs bytes with RSA and SHA-256; base64. Given, since it may be done by other threads. */
export type SignBytes = (bytes: Buffer) => Promise<string>

/**
 * A message with its DKIM-Signature before it, as bytes (RFC 6376; rsa-sha256, header relaxed, body simple). `raw` is as
 * `pourMessage` makes it: ASCII with CRLF only. `at`: when it is signed, ms.
 */
export async function signMessage(
  raw: string,
  by: { domain: string; selector: string },
  sign: SignBytes,
  at: number,
): Promise<Buffer> {
  const headEnd = raw.indexOf('\r\n\r\n')
  const bytes = Buffer.from(raw, 'latin1')
  const fields = fieldsOf(raw.slice(0, headEnd + 2)).filter(({ name }) => signed.has(name))
  const head = [
    `DKIM-Signature: v=1; a=rsa-sha256; c=relaxed/simple; d=${by.domain}; s=${by.selector};`,
    ` t=${Math.floor(at / 1000)};`,
    ` h=${fields.map(({ name }) => name).join(':')};`,
    ` bh=${bodyHash(bytes.subarray(headEnd + 4))};`,
    ' b=',
  ].join('\r\n')
  const signature = await sign(
    // The signature's own field comes last, with an empty b= and without a CRLF (3.7).
    Buffer.from(
      fields.map(relaxed).join('') + relaxed(fieldsOf(`${head}\r\n`)[0]!).slice(0, -2),
      'latin1',
    ),
  )
  return Buffer.concat([Buffer.from(`${head}${folded(signature)}\r\n`, 'latin1'), bytes])
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
  return `${name}:${value
    .replace(/[\r\n]/g, '')
    .replace(/[ \t]+/g, ' ')
    .trim()}\r\n`
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
