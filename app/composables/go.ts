import type { RouteLocationRaw } from 'vue-router'

/**
 * Goes to a page. Nuxt's `navigateTo` is for what decides about a way: called while somebody is on the way to another
 * page, it only says where to, and nobody goes.
 */
export async function goTo(to: RouteLocationRaw, { replace = false } = {}) {
  const router = useRouter()
  if (!replace) return void (await router.push(to))
  // One page in the place of another: nobody has gone anywhere.
  replacing++
  try {
    await router.replace(to)
  } finally {
    replacing--
  }
}

/** How often somebody has set out for another page here. */
let departures = 0
let replacing = 0
export function noteDeparture() {
  if (!replacing) departures++
}

/**
 * The way to what is being made at a press, asked for when it is pressed. Who has gone elsewhere by the time it is made is
 * not called back: they are told that it is there (`words`), with a way to it.
 */
export function wayOn() {
  const before = departures
  return async (to: string, words: string): Promise<'went' | 'told'> => {
    if (departures === before) {
      await goTo(to)
      return 'went'
    }
    useNotices().say(words, { label: 'Open it', run: () => void goTo(to) })
    return 'told'
  }
}
