import fc from 'fast-check'
import { expect, test } from 'vitest'
import { outlyingDays } from './outlying-days'

test.each([
  ['none', [10, 12, 9, 40], []],
  ['one', [10, 12, 305, 9], [2]],
  ['two, of which one is not far above the other', [10, 1204, 12, 305], [1, 3]],
  ['three', [900, 10, 800, 700, 12], [0, 2, 3]],
  ['too many to be outlying', [900, 800, 700, 600, 10], []],
  ['nothing beside it to be flattened', [0, 500, 0], []],
  ['nobody at all', [], []],
])('of days there is cut %s', (_, numbers, cut) => expect(outlyingDays(numbers)).toEqual(cut))

test('what is cut is far above all that is not', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(2_000), { maxLength: 30 }), (numbers) => {
      const cut = outlyingDays(numbers)
      expect(cut.length).toBeLessThanOrEqual(3)
      const rest = numbers.filter((_, i) => !cut.includes(i))
      for (const i of cut) expect(numbers[i]!).toBeGreaterThan(4 * Math.max(...rest))
    }),
  )
})
