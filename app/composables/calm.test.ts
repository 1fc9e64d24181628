import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, nextTick, shallowRef } from 'vue'
import { useCalm } from './calm'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

test('what changes now and then is followed at once; what changes at every key, when it pauses', async () => {
  const source = shallowRef(1)
  const scope = effectScope()
  const calm = scope.run(() => useCalm(() => source.value, 250))!
  const change = async (to: number) => {
    source.value = to
    await nextTick()
  }
  await change(2)
  expect(calm.value).toBe(2)
  for (const value of [3, 4, 5]) {
    vi.advanceTimersByTime(100)
    await change(value)
    expect(calm.value).toBe(2)
  }
  vi.advanceTimersByTime(250)
  expect(calm.value).toBe(5)
  vi.advanceTimersByTime(1_000)
  await change(6)
  await change(7)
  scope.stop()
  vi.advanceTimersByTime(1_000)
  expect(calm.value).toBe(6)
})
