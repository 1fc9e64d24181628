import { expect, test } from 'vitest'
import { moneyThatWouldNotHaveCome } from '.'

const group = (of: number, buyers: number, money: number) => ({
  of,
  each: Array.from({ length: buyers }, (_, n) => money + (n % 5) * 100),
})

test('money that would not have come is the difference a person, times those who were led', () => {
  const { rate, low, high } = moneyThatWouldNotHaveCome(
    group(1_000, 300, 4_000),
    group(100, 20, 4_000),
  )
  expect(rate).toBeCloseTo((0.3 - 0.2) * 4_200 * 1_000, -4)
  expect(low).toBeLessThan(rate)
  expect(high).toBeGreaterThan(rate)
})

test('its interval is as wide as that of the difference of means', () => {
  const [led, held] = [group(2_000, 600, 4_000), group(1_000, 300, 4_000)]
  const { low, high } = moneyThatWouldNotHaveCome(led, held)
  const variance = ({ of, each }: typeof led) => {
    const mean = each.reduce((sum, one) => sum + one, 0) / of
    return (each.reduce((sum, one) => sum + one * one, 0) / of - mean ** 2) / of
  }
  const wide = 2 * 1.96 * Math.sqrt(variance(led) + variance(held)) * led.of
  expect((high - low) / wide).toBeGreaterThan(0.85)
  expect((high - low) / wide).toBeLessThan(1.15)
})

test('where nobody bought anything, nothing came', () => {
  expect(moneyThatWouldNotHaveCome({ each: [], of: 10 }, { each: [], of: 0 })).toEqual({
    ...{ rate: 0, low: 0, high: 0 },
  })
})
