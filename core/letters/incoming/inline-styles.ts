import juice from 'juice'

/**
 * HTML with what its style sheets say written into its elements, where a letter is read from. Nothing is fetched. Not for
 * pages: the library is large, and takes time where the sheet is.
 */
export function withStylesInline(html: string): string {
  return juice(html, { removeStyleTags: false, preserveMediaQueries: true })
}
