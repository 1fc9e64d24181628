import { effectScope, nextTick, reactive, ref } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useLanding } from './landing'

const page = { template: '' }
/** What a page's `useRoute()` says: it follows only when the next page is drawn. */
const drawn = reactive({ path: '/sequences' })
let router: ReturnType<typeof createRouter>
beforeEach(async () => {
  router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/sequences' }, { path: '/sequences/:id' }, { path: '/people' }].map(
      (one) => ({
        ...one,
        component: page,
      }),
    ),
  })
  await router.push('/sequences')
  vi.stubGlobal('useRouter', () => router)
  vi.stubGlobal('useRoute', () => drawn)
})
afterEach(() => void vi.unstubAllGlobals())

const path = () => router.currentRoute.value.path
async function landing(answer: () => string | undefined, then: () => Promise<unknown>) {
  const scope = effectScope()
  scope.run(() => useLanding(() => '/sequences', answer))
  await then()
  await nextTick()
  await new Promise((go) => setTimeout(go))
  scope.stop()
}

test('it goes on as soon as it is known where to', async () => {
  const first = ref<string>()
  await landing(
    () => first.value,
    async () => void (first.value = '/sequences/2'),
  )
  expect(path()).toBe('/sequences/2')
})

test('who has gone elsewhere is not called back, though the page they went to is not drawn yet', async () => {
  const first = ref<string>()
  await landing(
    () => first.value,
    async () => {
      await router.push('/sequences/30')
      first.value = '/sequences/2'
    },
  )
  expect(path()).toBe('/sequences/30')
})

test('nor is who goes elsewhere while it goes on', async () => {
  await landing(
    () => '/sequences/2',
    () => router.push('/people'),
  )
  expect(path()).toBe('/people')
})
