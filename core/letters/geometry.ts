import type { Row } from './document'

/** Space at the sides of the paper, px; and on narrow screens. */
export const SIDE = 40
export const NARROW_SIDE = 20
/** Space at each side of a column that stands beside another, px: twice as much lies between two. */
export const BESIDE = 10

/**
 * Where a row keeps its space at the sides, px: partly around all its columns, partly around each. So columns that are
 * pushed one under the other on a narrow screen begin and end where everything else does, and all leave equal room.
 */
export function sidesOf(row: Row): { around: number; each: number } {
  return row.columns.length === 1
    ? { around: 0, each: SIDE }
    : { around: SIDE - BESIDE, each: BESIDE }
}

/** A column's width as it is written down, per cent: never so much that all of a row's are more than the row. */
export function percentOf(share: number): number {
  return Math.floor(share * 1_000_000) / 10_000
}

/** The whole px that a column's blocks have for their width, in a letter of some width. */
export function roomIn(row: Row, share: number, letterWidth: number): number {
  const { around, each } = sidesOf(row)
  return Math.floor(((letterWidth - 2 * around) * percentOf(share)) / 100 - 2 * each)
}

/** Whether a row's columns stand one under the other on a narrow screen. */
export function isStacked(row: Row): boolean {
  return row.columns.length > 1 && row.narrow !== 'keep'
}

/** What can be pressed is at least so high, and no text is smaller, px. */
export const PRESSED = 44
export const SMALLEST = 13
