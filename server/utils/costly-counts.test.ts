import { expect, test } from 'vitest'
import { costlyCounts } from './costly-counts'

let time = 0
let spent = 0
const { counted: counts, over } = costlyCounts(
  () => time,
  () => spent,
)
let made = 0
/** A count that takes so long, ms. */
const taking = (ms: number) => () => {
  time += ms
  spent += ms
  return ++made
}

test('what is quick is counted each time, also where the machine was busy otherwise', () => {
  const before = made
  counts('a', () => {
    time += 5_000
    return ++made
  })
  for (let i = 0; i < 3; i++) counts('a', taking(99))
  expect(made - before).toBe(4)
})

test('what is costly is counted again after twenty times as long as it took', () => {
  const first = counts('b', taking(900))
  expect(counts('b', taking(900))).toBe(first)
  time += 17_999
  expect(counts('b', taking(900))).toBe(first)
  time += 1
  expect(counts('b', taking(900))).toBe(first + 1)
})

test('another question is counted at once; one that has become quick is never old', () => {
  const first = counts('c', taking(500))
  expect(counts('d', taking(500))).toBe(first + 1)
  time += 10_000
  expect(counts('c', taking(5))).toBe(first + 2)
  expect(counts('c', taking(5))).toBe(first + 3)
})

test('however many are asked, few are remembered', () => {
  for (let i = 0; i < 1_000; i++) counts(`many ${i}`, taking(100))
  const before = made
  counts('many 999', taking(100))
  counts('many 0', taking(100))
  expect(made - before).toBe(1)
})

test('who was shown an old one is told when it can be made again, once', () => {
  time += 1_000_000
  const before = over()
  counts('e', taking(200))
  time += 4_000
  expect(over()).toBe(before)
  counts('e', taking(200))
  counts('e', taking(200))
  expect(over()).toBe(before)
  time += 4_000
  expect(over()).toBe(before + 1)
  expect(over()).toBe(before + 1)
})
