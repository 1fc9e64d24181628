/**
 * Text as rules compare it: without case and accents (Unicode NFKD, marks left out, lower case).
 * The database has this same function under the same name.
 */
export function fold(text: string): string {
  return text
    .replace(/\p{Surrogate}/gu, '\uFFFD')
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[\p{M}\0]/gu, '')
    .toLowerCase()
}
