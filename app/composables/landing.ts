/**
 * Goes on from a page that only stands for another one, as soon as it is known for which. Who is on the way
 * elsewhere by then is not called back: the answer may come while the next page is still being fetched.
 */
export function useLanding(from: () => string, to: () => string | undefined) {
  const route = useRoute()
  const router = useRouter()
  const underway = ref(false)
  const ends = [
    router.beforeEach(() => void (underway.value = true)),
    router.afterEach(() => void (underway.value = false)),
  ]
  onBeforeUnmount(() => ends.forEach((end) => end()))
  watch(
    () => (route.path === from() && !underway.value ? to() : undefined),
    (next) => {
      if (next) void navigateTo(next, { replace: true })
    },
    { immediate: true },
  )
}
