<script setup lang="ts">
interface Overview {
  everyone: number
  suppressed: number
  lists: { id: number; name: string; subscribers: number }[]
  imports: {
    id: number
    file_name: string
    state: string
    added: number
    refused: number
    created_at: number
  }[]
}
const route = useRoute()
const { answer } = useAnswer<Overview>(() => '/api/people/overview')
const segments = useAnswer<{ id: number; name: string }[]>(() => '/api/segments')
const sizes = useAnswer<Record<number, number>>(() => '/api/segments/sizes')
const { date } = useTimes()
const search = ref(String(route.query.search ?? ''))
const list = computed(() => (route.path === '/people' ? String(route.query.list ?? '') : null))
let timer: ReturnType<typeof setTimeout> | undefined
// Who goes to another page meanwhile is not called back.
onScopeDispose(
  useRouter().beforeEach((to, from) => {
    if (to.path !== from.path) clearTimeout(timer)
  }),
)
function find() {
  clearTimeout(timer)
  timer = setTimeout(
    () =>
      void goTo(
        {
          path: '/people',
          query: {
            ...(route.path === '/people' ? route.query : {}),
            search: search.value || undefined,
          },
        },
        { replace: route.path === '/people' },
      ),
    180,
  )
}
useKeys((event) => {
  if (event.key === 'n' && !isWriting(event) && !event.ctrlKey && !event.metaKey)
    void goTo('/people/import')
})
</script>

<template>
  <div class="flex h-full">
    <nav class="side" aria-label="People">
      <div class="px-4 pb-2">
        <input
          v-model="search"
          class="field"
          type="search"
          placeholder="Find a name or address"
          aria-label="Find a name or address"
          @input="find"
        />
      </div>
      <template v-if="answer">
        <NuxtLink
          to="/people"
          class="side-item"
          :class="list === '' && !route.query.aside && 'here'"
          ><span>Everyone</span><span>{{ count(answer.everyone) }}</span></NuxtLink
        >
        <div class="side-title flex justify-between">
          <span>Lists</span>
          <NuxtLink to="/people/vocabulary" class="link">Fields, tags, lists</NuxtLink>
        </div>
        <NuxtLink
          v-for="one in answer.lists"
          :key="one.id"
          :to="{ path: '/people', query: { list: one.id } }"
          class="side-item"
          :class="list === String(one.id) && 'here'"
          ><span>{{ one.name }}</span
          ><span>{{ count(one.subscribers) }}</span></NuxtLink
        >
        <div class="side-title flex justify-between">
          <span>Segments</span>
          <span class="flex gap-2">
            <NuxtLink to="/people/sql" class="link">In SQL</NuxtLink>
            <NuxtLink to="/people/segments/new" class="link">New</NuxtLink>
          </span>
        </div>
        <NuxtLink
          v-for="one in segments.answer.value"
          :key="one.id"
          :to="`/people/segments/${one.id}`"
          class="side-item"
          active-class="here"
          ><span class="truncate">{{ one.name }}</span
          ><span>{{
            sizes.answer.value?.[one.id] === undefined ? '' : count(sizes.answer.value[one.id]!)
          }}</span></NuxtLink
        >
        <p v-if="segments.answer.value?.length === 0" class="muted small px-4 pb-1">
          A rule that says who; always up to date.
        </p>
        <div class="side-title">Suppressed</div>
        <NuxtLink
          :to="{ path: '/people', query: { aside: '1' } }"
          class="side-item"
          :class="route.query.aside && 'here'"
          ><span>Bounced, complained, by hand</span
          ><span>{{ count(answer.suppressed) }}</span></NuxtLink
        >
        <template v-if="answer.imports.length">
          <div class="side-title">Imports</div>
          <NuxtLink
            v-for="one in answer.imports"
            :key="one.id"
            :to="`/people/imports/${one.id}`"
            class="side-item"
            active-class="here"
            ><span class="truncate">{{ one.file_name }}</span
            ><span class="small whitespace-nowrap">{{
              date(one.created_at).slice(0, -5)
            }}</span></NuxtLink
          >
        </template>
      </template>
      <div class="px-4 pt-4">
        <NuxtLink
          v-may="'POST /api/imports'"
          to="/people/import"
          class="btn btn-go w-full justify-center"
          >Import people</NuxtLink
        >
        <NuxtLink v-may="'POST /api/people'" to="/people/add" class="btn mt-2 w-full justify-center"
          >Add one person</NuxtLink
        >
      </div>
    </nav>
    <div class="min-w-0 flex-1 overflow-auto px-[22px] py-4"><NuxtPage /></div>
  </div>
</template>
