/** From here on a count is costly, ms of the processor. */
const COSTLY = 100
/** A costly one is made again only after so many times as long as it took. */
const REST = 20
/** As many as are remembered. */
const MOST = 200

/**
 * Counts that are asked for again with every change of anything: those that are quick are made each time, a costly one,
 * over a million people, only now and then. So pages with such counts take at most a twentieth of this process's time.
 * What a count costs is what the processor spends on it (`spent`, ms): a machine that is busy otherwise makes none costly.
 */
export function costlyCounts(now: () => number, spent: () => number) {
  const known = new Map<string, { value: unknown; until: number; shown: boolean }>()
  let over = 0
  return {
    /** What is counted is named by `key`; another key is counted at once. */
    counted<T>(key: string, count: () => T): T {
      const kept = known.get(key)
      if (kept && now() < kept.until) {
        kept.shown = true
        return kept.value as T
      }
      const before = spent()
      const value = count()
      const took = spent() - before
      if (known.size >= MOST) known.clear()
      if (took >= COSTLY) known.set(key, { value, until: now() + took * REST, shown: false })
      else known.delete(key)
      return value
    },
    /** Grows when a count that was shown though it was old can be made again: whoever shows it asks then. */
    over(): number {
      for (const [key, { until, shown }] of known)
        if (now() >= until) {
          known.delete(key)
          if (shown) over++
        }
      return over
    },
  }
}

const counts = costlyCounts(
  () => performance.now(),
  () => {
    const { user, system } = process.cpuUsage()
    return (user + system) / 1_000
  },
)
export const countedSeldom = counts.counted
export const costlyCountsOver = counts.over
