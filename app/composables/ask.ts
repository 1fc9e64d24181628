import type { FetchError } from 'ofetch'

interface Problem {
  message: string
  fields: Record<string, string>
}

/** Asks the server for something; throws where it refuses. See {@link problemOf}. */
export function request<T>(path: string): Promise<T> {
  return waitsFor($fetch<unknown>(path) as Promise<T>)
}

/** Asks the server for something; where it refuses, its sentence becomes a notice and the answer is null. */
export function ask<T>(path: string): Promise<T | null> {
  return orNotice(request<T>(path))
}

/** A question that is too long for an address: it goes as a POST, and changes nothing. */
export function question<T>(path: string, body: unknown, signal?: AbortSignal): Promise<T> {
  return waitsFor($fetch<unknown>(path, { method: 'POST', body, signal } as object) as Promise<T>)
}

/** The answer; where there is none, the server's sentence becomes a notice and it is null. */
export async function orNotice<T>(answer: Promise<T>): Promise<T | null> {
  try {
    return await answer
  } catch (error) {
    useNotices().refuse(problemOf(error).message)
    return null
  }
}

/** The session has ended: who signs in goes on where they were. */
function signInAgain() {
  const session = useSession()
  // On the way out already; who signed out by themselves begins anew.
  if (!session.loaded || !session.user) return
  // Otherwise they are taken for signed in, and sent home.
  session.loaded = false
  const to = location.pathname + location.search
  void goTo({ path: '/sign-in', query: { to } })
}

/** The server's sentence about what is wrong, and which fields it is about. */
export function problemOf(error: unknown): Problem {
  const fetched = error as FetchError<{
    message?: string
    data?: { fields?: Record<string, string> }
  }>
  if (fetched.statusCode === 401 && !location.pathname.startsWith('/sign-in')) signInAgain()
  const offline = fetched.statusCode === undefined
  return {
    message: offline
      ? 'Satchel does not answer just now. What you see stays; try again in a moment.'
      : (fetched.data?.message ?? fetched.message),
    fields: fetched.data?.data?.fields ?? {},
  }
}

/**
 * What a path answers, asked again whenever the path changes or something on the server does.
 * An old answer never replaces a newer one.
 */
export function useAnswer<T, S = null>(
  path: () => string | null,
  options: {
    live?: boolean
    sparing?: boolean
    before?: () => S
    after?: (got: T, before: S) => void
  } = {},
) {
  const answer = shallowRef<T | null>(null)
  const problem = ref<string | null>(null)
  const loading = ref(true)
  const live = useLive()
  let latest = 0
  let again = false
  let asking = false
  async function load() {
    const at = path()
    if (at === null) return
    if (asking) {
      again = true
      return
    }
    asking = true
    const mine = ++latest
    const before = options.before?.() as S
    try {
      const got = await request<T>(at)
      if (mine === latest && at === path()) {
        options.after?.(got, before)
        answer.value = got
        problem.value = null
      }
    } catch (error) {
      if (mine === latest) problem.value = problemOf(error).message
    }
    asking = false
    // The answer to another path may have come in the middle of this change: what is asked now is not known yet.
    if (at === path()) loading.value = false
    if (again || at !== path()) {
      again = false
      void load()
    }
  }
  watch(path, () => {
    loading.value = true
    void load()
  })
  /** What takes long to answer: no more than a tenth of the time is spent on it. */
  let free = 0
  let soon: ReturnType<typeof setTimeout> | undefined
  function loadSparingly() {
    soon ??= setTimeout(
      async () => {
        const began = performance.now()
        await load()
        soon = undefined
        free = performance.now() + 9 * (performance.now() - began)
      },
      Math.max(0, free - performance.now()),
    )
  }
  onUnmounted(() => clearTimeout(soon))
  if (options.live !== false)
    watch(
      () => live.changes,
      () => (options.sparing ? loadSparingly() : void load()),
    )
  onMounted(load)
  return { answer, problem, loading, reload: load }
}
