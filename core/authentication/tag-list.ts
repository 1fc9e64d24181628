/**
 * The tags of a text record, `k=rsa; p=…`, in their order (RFC 6376, 3.2). Null where it is none: a tag stands twice, or
 * something is no tag.
 */
export function readTagList(text: string): Map<string, string> | null {
  const tags = new Map<string, string>()
  const parts = text.split(';')
  // The last may be empty: a list may end with its separator.
  if (parts.at(-1)!.trim() === '') parts.pop()
  for (const part of parts) {
    const [, name, value] = /^\s*([A-Za-z]\w*)\s*=\s*([\s\S]*?)\s*$/.exec(part) ?? []
    if (name === undefined || tags.has(name)) return null
    tags.set(name, value!)
  }
  return tags
}
