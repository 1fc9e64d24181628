import type { RouteLocationRaw } from 'vue-router'

/**
 * Goes to a page. Nuxt's `navigateTo` is for what decides about a way: called while somebody is on the way to another
 * page, it only says where to, and nobody goes.
 */
export async function goTo(to: RouteLocationRaw, { replace = false } = {}) {
  const router = useRouter()
  await (replace ? router.replace(to) : router.push(to))
}
