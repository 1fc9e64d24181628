/**
 * What a letter may do where it is looked at: nothing but show itself. Its frame takes no scripts (sandbox), and asks for
 * nothing but pictures, whatever somebody wrote into the letter's HTML.
 */
const policy =
  "default-src 'none'; img-src 'self' data: https: http:; style-src 'unsafe-inline'; font-src 'self' data:; base-uri 'none'; form-action 'none'"

/** A letter's HTML as it is put into a frame of the application (`srcdoc`). */
export function framed(html: string): string {
  const meta = `<meta http-equiv="Content-Security-Policy" content="${policy}">`
  return /<head[^>]*>/i.test(html)
    ? html.replace(/<head[^>]*>/i, (head) => head + meta)
    : meta + html
}
