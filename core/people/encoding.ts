/** The encodings a file of people is read in. */
export const encodings = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const
export type Encoding = (typeof encodings)[number]

/**
 * Tells the encoding from the first bytes: the byte-order mark if there is one; else UTF-8 if the
 * bytes are that (a character cut off at the end is forgiven); else Windows-1252.
 */
export function encodingOf(bytes: Uint8Array): Encoding {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le'
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be'
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes, { stream: true })
    return 'utf-8'
  } catch {
    return 'windows-1252'
  }
}

/** Decodes a whole file, without its byte-order mark. */
export function decodeFile(bytes: Uint8Array, encoding: Encoding = encodingOf(bytes)): string {
  return new TextDecoder(encoding).decode(bytes)
}
