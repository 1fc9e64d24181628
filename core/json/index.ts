/** Deeper than anything of ours is nested; what reads it step by step would run out of room. */
const DEEPEST = 200

/** Why JSON from outside can't be read by anybody, and where. */
export interface JsonProblem {
  /** Such as "entries[3].name.toString". */
  path: string
  /** As a sentence. */
  message: string
}

/**
 * What of JSON from outside is not even to be looked at; null where there is nothing. What stands under `toString` hides what
 * turns a value into text, so that checking it would throw; and what is nested without end would be followed without end.
 */
export function jsonProblem(json: unknown, path = '', depth = 0): JsonProblem | null {
  if (typeof json !== 'object' || json === null) return null
  if (depth > DEEPEST) return { path: path.slice(0, 100), message: 'It is nested too deep.' }
  for (const [key, value] of Object.entries(json)) {
    const here = Array.isArray(json) ? `${path}[${key}]` : path ? `${path}.${key}` : key
    if (key === 'toString') {
      const at = here.slice(-100)
      return { path: at, message: `“${at}” can’t be a name here.` }
    }
    const found = jsonProblem(value, here, depth + 1)
    if (found) return found
  }
  return null
}
