import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useWaiting, waitsFor } from './waiting'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

test('what is answered at once says nothing; what takes longer is waited for until the last answer or failure', async () => {
  const waits = useWaiting()
  const open: { answer: () => void; fail: () => void }[] = []
  const ask = () =>
    waitsFor(
      new Promise<void>((answer, fail) => open.push({ answer, fail: () => fail(new Error()) })),
    ).catch(() => {})
  const quick = ask()
  open[0]!.answer()
  await quick
  const [slow, slower] = [ask(), ask()]
  await vi.advanceTimersByTimeAsync(500)
  expect(waits.value).toBe(false)
  await vi.advanceTimersByTimeAsync(200)
  expect(waits.value).toBe(true)
  open[1]!.answer()
  await slow
  expect(waits.value).toBe(true)
  open[2]!.fail()
  await slower
  expect(waits.value).toBe(false)
})
