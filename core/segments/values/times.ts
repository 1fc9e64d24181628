import { sql, type RawBuilder, type SqlBool } from 'kysely'
import { isWhole } from './comparison'
import type { Truth } from './sql'

/** How often something is asked to have happened. */
export interface Times {
  is: 'at-least' | 'at-most' | 'exactly'
  n: number
}

export const once: Times = { is: 'at-least', n: 1 }
export const notOnce: Times = { is: 'at-most', n: 0 }

/** Reads it from JSON that came from outside; null where it is none. */
export function readTimes(json: unknown): Times | null {
  if (typeof json !== 'object' || json === null) return null
  const { is, n } = json as Record<string, unknown>
  return (is === 'at-least' || is === 'at-most' || is === 'exactly') && isWhole(n, 0, 1_000_000)
    ? { is, n }
    : null
}

/** Whether nothing at all is as many times as asked for. */
export function allowsNone({ is, n }: Times): boolean {
  return is === 'at-most' || n === 0
}

export function isOnce({ is, n }: Times): boolean {
  return is === 'at-least' && n === 1
}

export function timesIs(count: number, { is, n }: Times): boolean {
  if (is === 'at-least') return count >= n
  return is === 'at-most' ? count <= n : count === n
}

export function timesSql(count: RawBuilder<unknown>, { is, n }: Times): Truth {
  if (is === 'at-least') return sql<SqlBool>`${count} >= ${n}`
  return is === 'at-most' ? sql<SqlBool>`${count} <= ${n}` : sql<SqlBool>`${count} = ${n}`
}
