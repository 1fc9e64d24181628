import fc from 'fast-check'
import { expect, test } from 'vitest'
import { longRows } from './long-rows'

const ROW = 48
const viewport = fc.integer({ min: 100, max: 2_000 })
const total = fc.oneof(fc.integer({ min: 1, max: 500 }), fc.integer({ min: 1, max: 20_000_000 }))

test('at the top the first row is seen, at the end the last, and no browser is asked for too much', () => {
  fc.assert(
    fc.property(total, viewport, (total, viewport) => {
      const first = longRows(0, viewport, total, ROW)
      expect(first.rows[0]).toEqual({ index: 0, top: 0 })
      expect(first.height).toBeLessThan(33_000_000)
      const end = longRows(first.height - viewport, viewport, total, ROW)
      const last = end.rows.at(-1)!
      expect(last.index).toBe(total - 1)
      if (total * ROW > viewport) expect(last.top + ROW).toBeCloseTo(end.height, 3)
    }),
  )
})

test('wherever it is scrolled to, what is seen is full of rows, one below the other', () => {
  fc.assert(
    fc.property(
      total,
      viewport,
      fc.double({ min: 0, max: 1, noNaN: true }),
      (total, viewport, at) => {
        const { height } = longRows(0, viewport, total, ROW)
        const top = Math.max(0, (height - viewport) * at)
        const { rows } = longRows(top, viewport, total, ROW)
        for (const [i, row] of rows.entries()) {
          if (i === 0) continue
          expect(row.index).toBe(rows[i - 1]!.index + 1)
          expect(row.top - rows[i - 1]!.top).toBeCloseTo(ROW, 3)
        }
        expect(rows[0]!.top).toBeLessThanOrEqual(top + 1e-3)
        const bottom = rows.at(-1)!.top + ROW
        expect(bottom >= top + viewport - 1e-3 || rows.at(-1)!.index === total - 1).toBe(true)
        expect(rows.length).toBeLessThan(100)
      },
    ),
  )
})
