const hex = '0123456789ABCDEF'

/** Most of what differs per recipient is one short line of plain letters, which is encoded as it is. */
const asItIs = /^(?![.F])[!-<>-~](?:[ -<>-~]{0,73}[!-<>-~])?$/

/**
 * Encodes text as quoted-printable (RFC 2045, 6.7): UTF-8, lines of at most 76 characters, every
 * line break CRLF. Begins at the start of a line.
 */
export function quotedPrintable(text: string): string {
  if (asItIs.test(text)) return text
  return text
    .split(/\r\n|\r|\n/)
    .map(encodeLine)
    .join('\r\n')
}

function encodeLine(line: string): string {
  const bytes = Buffer.from(line, 'utf8')
  let encoded = ''
  let column = 0
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i]!
    const last = i === bytes.length - 1
    const plain = (byte > 32 && byte < 127 && byte !== 61) || ((byte === 32 || byte === 9) && !last)
    // A dot at a line's start and the word From are left to no mail server's mercy.
    const atStart = column === 0 && (byte === 46 || byte === 70)
    const piece =
      plain && !atStart ? String.fromCharCode(byte) : `=${hex[byte >> 4]}${hex[byte & 15]}`
    if (column + piece.length > 75) {
      encoded += '=\r\n'
      column = 0
    }
    encoded += piece
    column += piece.length
  }
  return encoded
}
