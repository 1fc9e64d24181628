/**
 * A message ready to be sent (RFC 5322): ASCII, CRLF only. The body stays in the pieces it was poured from, since one
 * long text would be made of them only to be copied once more.
 */
export interface RawMessage {
  /** Its fields, each with its CRLF. */
  head: string
  /** What comes after the empty line; ends with CRLF. */
  body: readonly string[]
}

/** A message that is one text: fields, an empty line, and the rest. */
export function rawMessage(text: string): RawMessage {
  const end = text.indexOf('\r\n\r\n')
  return end < 0
    ? { head: text, body: [] }
    : { head: text.slice(0, end + 2), body: [text.slice(end + 4)] }
}

export function textOf({ head, body }: RawMessage): string {
  return `${head}\r\n${body.join('')}`
}

/** How a message is put into bytes. */
export interface InBytes {
  /** What stands after it. */
  end?: string
  /** How much room is left before it for what is still to be said there. */
  room?: number
  /** Memory that is free again, and taken where it is large enough. */
  spare?: Buffer | undefined
}

/** The bytes of a message in one piece; its body is `bytes.subarray(bodyStart, bodyEnd)`. */
export function bytesOf({ head, body }: RawMessage, { end = '', room = 0, spare }: InBytes = {}) {
  const bodyStart = room + head.length + 2
  const bodyEnd = body.reduce((sum, piece) => sum + piece.length, bodyStart)
  const length = bodyEnd + end.length
  const bytes =
    spare && spare.length >= length ? spare.subarray(0, length) : Buffer.allocUnsafeSlow(length)
  bytes.write(`${head}\r\n`, room, 'latin1')
  let at = bodyStart
  for (const piece of body) at += bytes.write(piece, at, 'latin1')
  bytes.write(end, at, 'latin1')
  return { bytes, bodyStart, bodyEnd }
}
