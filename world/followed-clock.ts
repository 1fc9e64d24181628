/** The practice clock as the world knows it: asked over HTTP, and running on between two answers. */
export interface FollowedClock {
  now(): number
  /** Whether the clock has answered at all; before, its time is a guess. */
  isKnown(): boolean
  /** Says how far the world has come; a jump waits for that. */
  followedTo(at: number): void
  stop(): void
}

/** How long after an answer it is asked again, ms; sooner while the clock stands and waits for the world to follow. */
const BETWEEN = 80
const BETWEEN_LEAPS = 15

interface Answer {
  now: number
  rate: number
}

/** Follows the clock at `url`. Until the first answer, and without one, it is the host's. */
export function followClock(url: string, hostClock: () => number): FollowedClock {
  let known: Answer = { now: hostClock(), rate: 1 }
  let knownAt = hostClock()
  let followed = 0
  let isKnown = false
  let stopped = false
  const now = () => known.now + (hostClock() - knownAt) * known.rate
  async function ask() {
    try {
      const response = await fetch(`${url}?followed=${Math.floor(followed)}`, {
        signal: AbortSignal.timeout(2_000),
      })
      if (response.ok) {
        known = (await response.json()) as Answer
        knownAt = hostClock()
        isKnown = true
      }
    } catch {
      // The web process is not there just now; time runs on.
    }
    if (!stopped) setTimeout(() => void ask(), known.rate === 0 ? BETWEEN_LEAPS : BETWEEN)
  }
  void ask()
  return {
    now,
    isKnown: () => isKnown,
    followedTo: (at) => (followed = at),
    stop: () => (stopped = true),
  }
}
