import { createPinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import { createRenderer } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import { forgetKeepers } from './composables/changes'

/** One request as the server would have got it. */
export interface Sent {
  path: string
  method: string
  body: unknown
  signal: AbortSignal | undefined
  /** Answers it. */
  answer: (json: unknown) => void
  /** Refuses it as the server does: with a status and a sentence. */
  refuse: (statusCode: number, message: string, fields?: Record<string, string>) => void
  /** The line breaks before there is an answer. */
  fail: () => void
  /** Refuses it with just this. */
  failWith: (error: Error) => void
}

/**
 * A server made up for a test of the pages' own state: what is asked of it waits until the test
 * answers. Pinia is fresh, and going to another page is written down.
 */
export function madeUpServer() {
  setActivePinia(createPinia())
  useSession().user = { id: 1, name: 'Wren', address: 'wren@galewright.example', role: 'owner' }
  forgetKeepers()
  const sent: Sent[] = []
  const visited: RouteLocationRaw[] = []
  vi.stubGlobal('useRouter', () => ({
    push: async (to: RouteLocationRaw) => void visited.push(to),
  }))
  vi.stubGlobal('location', { pathname: '/mail', search: '?sort=name' })
  vi.stubGlobal('$fetch', (path: string, options: Partial<Sent> = {}) => {
    return new Promise((done, failed) => {
      sent.push({
        path,
        method: options.method ?? 'GET',
        body: options.body,
        signal: options.signal,
        answer: done,
        refuse: (statusCode, message, fields) =>
          failed(
            Object.assign(new Error(message), { statusCode, data: { message, data: { fields } } }),
          ),
        fail: () => failed(new Error('fetch failed')),
        failWith: failed,
      })
    })
  })
  return {
    sent,
    visited,
    /** The latest request to a path; it must be there. */
    latest(path: string): Sent {
      const found = sent.findLast((one) => one.path === path)
      if (!found)
        throw new Error(`${path} was not asked; asked were ${sent.map((one) => one.path)}`)
      return found
    },
  }
}

/** Lets everything that waits for an answer go on. */
export async function settled() {
  for (let i = 0; i < 10; i++) await Promise.resolve()
}

/** Runs a composable as a component that draws nothing would. */
export function mountedBy<T>(setup: () => T): T {
  let got: T
  const nothing = () => ({}) as never
  const { createApp } = createRenderer<object, object>({
    patchProp: nothing,
    insert: nothing,
    remove: nothing,
    createElement: nothing,
    createText: nothing,
    createComment: nothing,
    setText: nothing,
    setElementText: nothing,
    parentNode: nothing,
    nextSibling: nothing,
  })
  createApp({
    setup() {
      got = setup()
      return () => null
    },
  }).mount({})
  return got!
}
