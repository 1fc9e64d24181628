/**
 * Goes on from a page that only stands for another one, as soon as it is known for which. Who is on the way
 * elsewhere by then, or has arrived there, is not called back: the answer may come while the next page is still
 * being fetched, or drawn.
 */
export function useLanding(from: () => string, to: () => string | undefined) {
  const router = useRouter()
  /** Where somebody is on the way to. A way that another one cut off ends, too, and is not this one any more. */
  const underway = shallowRef<unknown>(null)
  const ends = [
    router.beforeEach((to) => void (underway.value = to)),
    router.afterEach((to) => {
      if (underway.value === to) underway.value = null
    }),
  ]
  onScopeDispose(() => ends.forEach((end) => end()))
  watch(
    // Where the router is. `useRoute()` goes on telling of the page before until the next one is drawn.
    () => (router.currentRoute.value.path === from() && !underway.value ? to() : undefined),
    (next) => {
      if (next) void goTo(next, { replace: true })
    },
    { immediate: true },
  )
}
