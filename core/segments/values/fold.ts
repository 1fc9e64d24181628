/**
 * Text as rules compare it: without case and accents (Unicode NFKD, marks left out, lower case).
 * The database has this same function under the same name.
 */
export function fold(text: string): string {
  // Plain letters have neither accents nor marks; most texts are made of them alone.
  if (/^[\x01-\x7f]*$/.test(text)) return text.toLowerCase()
  return text
    .replace(/\p{Surrogate}/gu, '\uFFFD')
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[\p{M}\0]/gu, '')
    .toLowerCase()
}
