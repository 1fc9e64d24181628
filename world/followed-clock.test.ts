import { afterEach, expect, test, vi } from 'vitest'
import { followClock, type FollowedClock } from './followed-clock'

let clock: FollowedClock | undefined
afterEach(() => {
  clock?.stop()
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

/** The web process answers each question with the next of these; then it is not there any more. */
function answers(...given: { now: number; rate: number }[]) {
  const asked: string[] = []
  vi.useFakeTimers({ now: 1_000 })
  vi.stubGlobal('fetch', async (url: string) => {
    asked.push(url)
    const answer = given.shift()
    if (!answer) throw new Error('refused')
    return { ok: true, json: async () => answer }
  })
  return asked
}

test('until the first answer the clock is the host’s', () => {
  answers()
  clock = followClock('http://satchel.test/clock', Date.now)
  expect(clock.now()).toBe(1_000)
})

test('between two answers it runs on at the rate it was told', async () => {
  answers({ now: 500_000, rate: 60 })
  clock = followClock('http://satchel.test/clock', Date.now)
  await vi.advanceTimersByTimeAsync(0)
  expect(clock.now()).toBe(500_000)
  vi.setSystemTime(3_000)
  expect(clock.now()).toBe(620_000)
})

test('a jump is followed at the next answer; without one, time runs on', async () => {
  answers({ now: 500_000, rate: 1 }, { now: 9_000_000, rate: 1 })
  clock = followClock('http://satchel.test/clock', Date.now)
  await vi.advanceTimersByTimeAsync(90)
  expect(clock.now()).toBeGreaterThanOrEqual(9_000_000)
  const before = clock.now()
  await vi.advanceTimersByTimeAsync(5_000)
  expect(clock.now() - before).toBe(5_000)
})

test('each question says how far the world has come', async () => {
  const asked = answers({ now: 1, rate: 1 }, { now: 2, rate: 1 })
  clock = followClock('http://satchel.test/clock', Date.now)
  clock.followedTo(1234.9)
  await vi.advanceTimersByTimeAsync(90)
  expect(asked).toEqual([
    'http://satchel.test/clock?followed=0',
    'http://satchel.test/clock?followed=1234',
  ])
})
