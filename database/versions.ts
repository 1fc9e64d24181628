import { createHash } from 'node:crypto'

/** A mark of something as it is: equal things, equal marks. 16 hex digits, which are enough to tell changes apart. */
export function markOf(value: unknown): string {
  return createHash('sha256')
    .update(JSON.stringify(value) ?? '')
    .digest('hex')
    .slice(0, 16)
}
