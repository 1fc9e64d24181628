import type { Join } from './kept'

/** Equal as JSON, whatever the order of keys. */
export function isAlike(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a) !== Array.isArray(b)) return false
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((key) => isAlike(a[key as never], b[key as never]))
}

/**
 * Joins what two people made of the same thing, field by field: what only one of them changed is as that one has it;
 * a field that both changed, each to something else, is contested and stays as it is here.
 */
export const joinFields: Join<object> = (base, mine, theirs) => {
  const contested: string[] = []
  const value = { ...theirs } as Record<string, unknown>
  for (const key of new Set([...Object.keys(mine), ...Object.keys(base)])) {
    const [was, here, there] = [base, mine, theirs].map((one) => one[key as keyof typeof one])
    if (isAlike(here, was)) continue
    value[key] = here
    if (!isAlike(there, was) && !isAlike(there, here)) contested.push(key)
  }
  return { value, contested }
}
