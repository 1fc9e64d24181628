import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { madeUpServer } from '../made-up'
import { useNotices } from './notices'

beforeEach(() => {
  vi.useFakeTimers()
  madeUpServer()
})
afterEach(() => vi.useRealTimers())

const texts = () => useNotices().notices.map(({ text }) => text)

test('good news goes after six seconds, a refusal stays twice as long', () => {
  useNotices().say('Saved.')
  useNotices().refuse('Not saved.')
  vi.advanceTimersByTime(6_100)
  expect(texts()).toEqual(['Not saved.'])
  vi.advanceTimersByTime(6_000)
  expect(texts()).toEqual([])
})

test('the same sentence stands there once, and at most four do', () => {
  for (const text of ['a', 'b', 'a']) useNotices().say(text)
  expect(texts()).toEqual(['b', 'a'])
  for (const text of ['c', 'd', 'e']) useNotices().say(text)
  expect(texts()).toEqual(['a', 'c', 'd', 'e'])
})

test('a sentence said again is not taken away by the clock of the first', () => {
  useNotices().say('Copied.')
  vi.advanceTimersByTime(4_000)
  useNotices().say('Copied.')
  vi.advanceTimersByTime(4_000)
  expect(texts()).toEqual(['Copied.'])
})

test('one dismisses one', () => {
  useNotices().say('a')
  useNotices().say('b', { label: 'Undo', run: () => {} })
  useNotices().dismiss(useNotices().notices[0]!.id)
  expect(useNotices().notices).toMatchObject([{ text: 'b', action: { label: 'Undo' } }])
})
