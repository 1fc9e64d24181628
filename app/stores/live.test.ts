import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { madeUpServer, settled } from '../made-up'
import { useLive } from './live'

/** A line from the server that a test speaks through. */
class Line {
  static CLOSED = 2
  static opened: Line[] = []
  readyState = 1
  onmessage: ((message: { data: string }) => void) | null = null
  onerror: (() => void) | null = null
  constructor(readonly path: string) {
    Line.opened.push(this)
  }
  tell(told: object) {
    this.onmessage?.({ data: JSON.stringify(told) })
  }
  breakOff(readyState: number) {
    this.readyState = readyState
    this.onerror?.()
  }
  close() {
    this.readyState = Line.CLOSED
  }
}

const NOON = Date.UTC(2026, 10, 23, 12)
let server: ReturnType<typeof madeUpServer>
beforeEach(() => {
  vi.useFakeTimers({ now: NOON })
  server = madeUpServer()
  Line.opened = []
  vi.stubGlobal('EventSource', Line)
})
afterEach(() => vi.useRealTimers())

test('every message counts as a change and sets the clock', () => {
  const live = useLive()
  live.begin()
  live.begin()
  expect(Line.opened.map(({ path }) => path)).toEqual(['/api/live'])
  Line.opened[0]!.tell({ host: NOON, now: NOON, practice: null })
  Line.opened[0]!.tell({ host: NOON, now: NOON, practice: null })
  expect(live).toMatchObject({ changes: 2, connected: true, now: NOON })
})

test('the time shown is the server’s, also where this machine’s clock is wrong', () => {
  const live = useLive()
  live.begin()
  Line.opened[0]!.tell({ host: NOON + 90_000, now: NOON + 90_000, practice: null })
  vi.advanceTimersByTime(1_000)
  expect(live.now).toBe(NOON + 91_000)
})

test('practice time runs on between two messages at its own rate', () => {
  const live = useLive()
  live.begin()
  const practice = { anchorReal: NOON, anchorPractice: NOON, rate: 60, jumpTo: null }
  Line.opened[0]!.tell({ host: NOON, now: NOON, practice })
  const before = live.now
  vi.advanceTimersByTime(2_000)
  expect(live.now - before).toBe(120_000)
})

test('a line that breaks is left to open itself; one that was refused is opened again', () => {
  const live = useLive()
  live.begin()
  Line.opened[0]!.breakOff(0)
  expect(live.connected).toBe(false)
  vi.advanceTimersByTime(60_000)
  expect(Line.opened).toHaveLength(1)
  Line.opened[0]!.breakOff(Line.CLOSED)
  vi.advanceTimersByTime(6_000)
  expect(Line.opened).toHaveLength(2)
  Line.opened[1]!.tell({ host: NOON, now: NOON, practice: null })
  expect(live.connected).toBe(true)
})

test('whoever signs out is told nothing more', () => {
  const live = useLive()
  live.begin()
  Line.opened[0]!.breakOff(Line.CLOSED)
  live.end()
  vi.advanceTimersByTime(60_000)
  expect(Line.opened).toHaveLength(1)
})

test('the clock is set by the server’s answer; a refusal becomes a notice', async () => {
  const live = useLive()
  live.begin()
  const setting = live.setClock({ rate: 3600 })
  expect(server.latest('/api/clock')).toMatchObject({ method: 'POST', body: { rate: 3600 } })
  server.latest('/api/clock').refuse(409, 'The world has not come so far yet.')
  await setting
  await settled()
  expect(live.practice).toBeNull()
  expect(useNotices().notices[0]?.text).toBe('The world has not come so far yet.')
})
