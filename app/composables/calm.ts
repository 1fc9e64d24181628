/**
 * Follows `source` at once; where its changes come one upon the other, only when they pause for `ms`. For what stands
 * beside a text and need not be drawn anew at every key.
 */
export function useCalm<T>(source: () => T, ms = 250): Readonly<Ref<T>> {
  const calm = shallowRef(source()) as Ref<T>
  let last = -Infinity
  let pause: ReturnType<typeof setTimeout> | undefined
  watch(source, (next) => {
    clearTimeout(pause)
    const now = performance.now()
    if (now - last >= ms) calm.value = next
    else pause = setTimeout(() => (calm.value = source()), ms)
    last = now
  })
  onScopeDispose(() => clearTimeout(pause))
  return calm
}
