import { beforeEach, expect, test } from 'vitest'
import { madeUpServer } from '../made-up'
import { count, money, ordinal, people, percent, rows, useTimes, useToday } from './words'

beforeEach(() => void madeUpServer())

test.each([
  [0, '0%'],
  [0.0004, '0.04%'],
  [0.00999, '1.00%'],
  [0.01, '1.0%'],
  [0.4118, '41.2%'],
  [1, '100.0%'],
])('the share %d is written %s', (share, written) => expect(percent(share)).toBe(written))

test.each([
  [1, '1st'],
  [2, '2nd'],
  [3, '3rd'],
  [4, '4th'],
  [11, '11th'],
  [12, '12th'],
  [13, '13th'],
  [21, '21st'],
  [102, '102nd'],
  [111, '111th'],
])('%d is the %s', (n, written) => expect(ordinal(n)).toBe(written))

test('numbers are grouped, and one thing is one thing', () => {
  expect(count(12_408)).toBe('12,408')
  expect([people(1), people(0), people(1_224)]).toEqual(['1 person', '0 people', '1,224 people'])
  expect(rows(1)).toBe('1 row')
})

test.each([
  [41_200, 'GBP', '£412'],
  [3_850, 'GBP', '£38.50'],
  [0, 'EUR', '€0'],
  [-1_999, 'GBP', '-£19.99'],
  [5_000, 'JPY', 'JP¥5,000'],
])('%d of the smallest unit of %s are %s', (minor, currency, written) =>
  expect(money(minor, currency)).toBe(written),
)

test('times are those of the account’s zone, over the change of the clocks, too', () => {
  useSession().account = { name: 'Galewright', zone: 'Europe/Berlin' } as never
  const { dayAndTime, date, time } = useTimes()
  expect(time(Date.UTC(2026, 9, 25, 0, 30))).toBe('02:30')
  expect(time(Date.UTC(2026, 9, 25, 1, 30))).toBe('02:30')
  expect(dayAndTime(Date.UTC(2026, 10, 22, 23, 40))).toBe('Mon 23 Nov 00:40')
  expect(date(Date.UTC(2026, 11, 31, 23, 0))).toBe('1 Jan 2027')
})

test('today is the day it is in the account’s zone', () => {
  useSession().account = { name: 'Galewright', zone: 'Pacific/Auckland' } as never
  useLive().now = Date.UTC(2026, 10, 22, 12)
  expect(useToday().today()).toBe('2026-11-23')
})
