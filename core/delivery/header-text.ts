/**
 * Text as the value of a header: without line breaks and other control characters, so that it
 * can't begin another header; outside ASCII as encoded words (RFC 2047), folded at 76 characters.
 */
export function encodeHeaderText(text: string): string {
  const safe = text.replace(/[\p{Cc}\u2028\u2029]+/gu, ' ').trim()
  if (/^[\x20-\x7e]*$/.test(safe) && !safe.includes('=?')) return fold(safe)
  const words: string[] = []
  let held = ''
  for (const letter of safe) {
    if (Buffer.byteLength(held + letter, 'utf8') > 42) {
      words.push(held)
      held = ''
    }
    held += letter
  }
  if (held) words.push(held)
  return words
    .map((word) => `=?UTF-8?B?${Buffer.from(word, 'utf8').toString('base64')}?=`)
    .join('\r\n ')
}

/** A display name before an address: quoted where it must be. */
export function encodeAddressName(name: string): string {
  const encoded = encodeHeaderText(name)
  if (encoded === '' || encoded.startsWith('=?')) return encoded
  if (/^[a-z0-9!#$%&'*+/=?^_`{|}~ -]*$/i.test(encoded)) return encoded
  return `"${encoded.replace(/[\\"]/g, '\\$&')}"`
}

/** Breaks a long line of words at spaces; a single word of more than a line stays whole. */
function fold(text: string): string {
  if (text.length <= 64) return text
  const lines: string[] = []
  let line = ''
  for (const word of text.split(' ')) {
    if (line !== '' && line.length + 1 + word.length > 64) {
      lines.push(line)
      line = word
    } else line = line === '' ? word : `${line} ${word}`
  }
  return [...lines, line].join('\r\n ')
}
