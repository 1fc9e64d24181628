/** Asks a name server, as `dns.promises.resolve` does: a `TXT` answer is a list of strings a record. */
export type Resolve = (name: string, type: string) => Promise<unknown>

/** The texts of a name; null where no answer came, [] where there are none. */
export async function textsOf(resolve: Resolve, name: string): Promise<string[] | null> {
  try {
    return ((await resolve(name, 'TXT')) as string[][]).map((parts) => parts.join(''))
  } catch (error) {
    const { code } = error as { code?: string }
    return code === 'ENOTFOUND' || code === 'ENODATA' ? [] : null
  }
}

/** The same names, as they would be with other texts at one of them. */
export function withTexts(resolve: Resolve, name: string, texts: readonly string[]): Resolve {
  return (asked, type) =>
    asked.toLowerCase() === name.toLowerCase() && type === 'TXT'
      ? Promise.resolve(texts.map((text) => [text]))
      : resolve(asked, type)
}
