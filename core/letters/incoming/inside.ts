import type { Letter } from '../document'

/**
 * HTML and MJML can't say all that a letter is: who is shown what, what its products are picked by, how a column counts. So
 * the letter itself rides along in a file that is taken out, in a comment, and comes back whole from there as long as
 * nothing else in the file has been changed; after that, what is seen counts.
 */
const WORDS = 'The letter itself, for Satchel'
const comment = new RegExp(`<!-- ${WORDS}: ([0-9a-z]{1,14}) ([A-Za-z0-9+/=]+) -->\\n?`)

/** A file with its letter inside: after the first tag of MJML, at the end of HTML. */
export function withLetterInside(source: string, letter: Letter, format: 'html' | 'mjml'): string {
  const inside = `<!-- ${WORDS}: ${sumOf(source)} ${toBase64(JSON.stringify(letter))} -->\n`
  return format === 'mjml'
    ? source.replace(/^(\s*<mjml[^>]*>\n?)/, (tag) => `${tag}${inside}`)
    : `${source.replace(/\n?$/, '\n')}${inside}`
}

/** The letter inside a file, as JSON, where the file is as it was taken out; null where there is none, or where it is not. */
export function letterInside(text: string): string | null {
  const found = comment.exec(text)
  if (!found) return null
  const [whole, sum, base64] = found
  return sumOf(text.replace(whole, '')) === sum ? fromBase64(base64!) : null
}

/** Whether two texts are the same but for white space; not for secrets. (cyrb53, public domain.) */
function sumOf(text: string): string {
  let [one, two] = [0xdeadbeef, 0x41c6ce57]
  for (const letter of text.replaceAll(/\s+/g, '')) {
    const code = letter.codePointAt(0)!
    one = Math.imul(one ^ code, 2654435761)
    two = Math.imul(two ^ code, 1597334677)
  }
  one = Math.imul(one ^ (one >>> 16), 2246822507) ^ Math.imul(two ^ (two >>> 13), 3266489909)
  two = Math.imul(two ^ (two >>> 16), 2246822507) ^ Math.imul(one ^ (one >>> 13), 3266489909)
  return (4294967296 * (2097151 & two) + (one >>> 0)).toString(36)
}

function toBase64(text: string): string {
  const bytes = new TextEncoder().encode(text)
  let binary = ''
  for (const byte of bytes) binary += String.fromCharCode(byte)
  return btoa(binary)
}

/** Null where it is no text. */
function fromBase64(base64: string): string | null {
  try {
    const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return null
  }
}
