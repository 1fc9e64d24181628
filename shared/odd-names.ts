/**
 * The path of a name in JSON from outside that no value can be read beside, such as "entries[3].name.toString"; null where
 * there is none. What stands under `toString` hides what turns a value into text, so that checking it would throw.
 */
export function oddName(json: unknown, path = ''): string | null {
  if (typeof json !== 'object' || json === null) return null
  for (const [key, value] of Object.entries(json)) {
    const here = Array.isArray(json) ? `${path}[${key}]` : path ? `${path}.${key}` : key
    const odd = key === 'toString' ? here : oddName(value, here)
    if (odd !== null) return odd
  }
  return null
}
