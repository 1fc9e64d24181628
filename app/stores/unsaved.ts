/** Something that may hold what is not on the server yet. */
export interface Watched {
  settled: () => boolean
  /** Waits until nothing more can be done for it. */
  flush: () => Promise<unknown>
  /** Why it can't be saved; null where nothing keeps it from it. */
  problem: () => string | null
}

/** What is not on the server yet, by thing: nothing of a thing is sent, started or published while something of it is unsaved. */
export const useUnsaved = defineStore('unsaved', () => {
  const underway = reactive(new Map<string, number>())
  const watched = shallowReactive(new Map<string, Set<Watched>>())

  const begin = (of: string) => underway.set(of, (underway.get(of) ?? 0) + 1)
  function end(of: string) {
    const left = (underway.get(of) ?? 1) - 1
    if (left > 0) underway.set(of, left)
    else underway.delete(of)
  }

  function watchOver(of: string, one: Watched) {
    watched.set(of, new Set([...(watched.get(of) ?? []), one]))
    return () => watched.get(of)?.delete(one)
  }

  const all = (of: string) => [...(watched.get(of) ?? [])]

  /** Whether all that was chosen of a thing is on the server. */
  const isSettled = (of: string) => !underway.has(of) && all(of).every((one) => one.settled())

  /** Why something of it can't be saved; null where nothing keeps it. */
  const problemWith = (of: string) =>
    all(of)
      .filter((one) => !one.settled())
      .map((one) => one.problem())
      .find((words) => words !== null) ?? null

  /** Saves what can be saved of a thing; a sentence where something stays unsaved. */
  async function settle(of: string): Promise<string | null> {
    await Promise.all(all(of).map((one) => one.flush()))
    const left = all(of).filter((one) => !one.settled())
    if (!left.length) return null
    return problemWith(of) ?? 'Something you chose is not saved yet. Wait a moment.'
  }

  /** Whether something is unsaved that does not go by itself: the page is not to be closed without a word. */
  const anythingKept = computed(() => [...watched.keys()].some((of) => problemWith(of) !== null))

  return { begin, end, watchOver, isSettled, problemWith, settle, anythingKept }
})
