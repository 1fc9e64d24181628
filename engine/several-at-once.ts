import type { Engine, Work } from './engine'

/**
 * Work on what others answer, several at a time: one that is slow holds up no other, since whenever one is over the next
 * begins. `waiting` names what waits, the first first, also while it is being worked on.
 */
export function severalAtOnce(
  most: number,
  waiting: (engine: Engine, many: number) => string[],
  work: (engine: Engine, one: string) => Promise<void>,
): Work {
  const underway = new Set<string>()
  return (engine) => {
    const free = most - underway.size
    if (free <= 0) return false
    const next = waiting(engine, most + free).filter((one) => !underway.has(one))
    for (const one of next.slice(0, free)) {
      underway.add(one)
      void work(engine, one)
        .catch((error: unknown) =>
          engine.log.error(
            { error: error instanceof Error ? error.message : String(error) },
            'failed',
          ),
        )
        .finally(() => underway.delete(one))
    }
    return next.length > 0
  }
}
