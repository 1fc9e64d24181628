import type { FetchError, FetchOptions } from 'ofetch'

interface Problem {
  message: string
  fields: Record<string, string>
}

type Options = FetchOptions<'json'> & { method?: 'GET' | 'POST' | 'PUT' | 'DELETE' }

/** One request; throws where the server refuses. See {@link problemOf}. */
export function request<T>(path: string, options: Options = {}): Promise<T> {
  return $fetch<unknown>(path, options as object) as Promise<T>
}

/** Asks the server; where it refuses, its sentence becomes a notice and the answer is null. */
export async function ask<T>(path: string, options: Options = {}): Promise<T | null> {
  try {
    return await request<T>(path, options)
  } catch (error) {
    useNotices().refuse(problemOf(error).message)
    return null
  }
}

/** The server's sentence about what is wrong, and which fields it is about. */
export function problemOf(error: unknown): Problem {
  const fetched = error as FetchError<{
    message?: string
    data?: { fields?: Record<string, string> }
  }>
  if (fetched.statusCode === 401 && !location.pathname.startsWith('/sign-in'))
    void navigateTo('/sign-in')
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
export function useAnswer<T>(path: () => string | null, options: { live?: boolean } = {}) {
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
    try {
      const got = await request<T>(at)
      if (mine === latest && at === path()) {
        answer.value = got
        problem.value = null
      }
    } catch (error) {
      if (mine === latest) problem.value = problemOf(error).message
    }
    loading.value = false
    asking = false
    if (again || at !== path()) {
      again = false
      void load()
    }
  }
  watch(path, () => {
    loading.value = true
    void load()
  })
  if (options.live !== false)
    watch(
      () => live.changes,
      () => void load(),
    )
  onMounted(load)
  return { answer, problem, loading, reload: load }
}
