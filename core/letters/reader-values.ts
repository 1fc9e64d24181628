/**
 * Values of what somebody did: how they joined the list (`sign_up.day`, `sign_up.way`), and what the latest event of a
 * name says (`event.page_view.page`).
 */
export type ReaderValue =
  { of: 'sign_up'; key: SignUpKey } | { of: 'event'; name: string; key: string }
type SignUpKey = 'day' | 'way'

/** What a fill-in's path names of what somebody did; null where it names something else. */
export function readerValue(path: string): ReaderValue | null {
  const [of, first, second, more] = path.split('.')
  if (more !== undefined || !first) return null
  if (of === 'sign_up' && second === undefined && (first === 'day' || first === 'way'))
    return { of, key: first }
  if (of === 'event' && second) return { of, name: first, key: second }
  return null
}

/** A name as paths write it: "page view" is `page_view`. */
export function inPath(name: string): string {
  const word = name.toLowerCase().replace(/[^a-z0-9]+/g, '_')
  return /^[a-z_]/.test(word) ? word : `_${word}`
}
