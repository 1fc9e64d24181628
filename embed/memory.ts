/** What the visitor's own browser remembers, and nobody else: that a form was closed, and that they joined. */
const named = (name: string) => `sign-up:${name}`

export function recall(name: string): string | null {
  try {
    return localStorage.getItem(named(name))
  } catch {
    // A browser that keeps nothing shows a form once more; that is all.
    return null
  }
}

export function remember(name: string, value: string) {
  try {
    localStorage.setItem(named(name), value)
  } catch {
    /* See above. */
  }
}
