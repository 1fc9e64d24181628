<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { showFieldValue, type FieldValue } from '~~/core/people'

interface Person {
  id: number
  address: string
  name: string
  values: Record<string, FieldValue>
  joinedAt: number
  pulse: ('clicked' | 'opened' | 'delivered' | 'not-sent' | 'bounced')[]
}
interface Page {
  count: number
  people: Person[]
}
const PAGE = 100
const route = useRoute()
const { date } = useTimes()
const overview = useAnswer<{ lists: { id: number; name: string; description: string }[] }>(
  () => '/api/people/overview',
  { live: false },
)
const path = computed(() => {
  const query = new URLSearchParams()
  for (const key of ['list', 'aside', 'search'])
    if (route.query[key]) query.set(key, String(route.query[key]))
  return `/api/people?${query}`
})
const { answer: first, loading, problem } = useAnswer<Page>(() => path.value)
const pages = shallowRef(new Map<number, Person[]>())
watch(first, (page) => page && (pages.value = new Map([[0, page.people]])))
const total = computed(() => first.value?.count ?? 0)
const list = computed(() =>
  overview.answer.value?.lists.find((one) => String(one.id) === route.query.list),
)
const title = computed(() => (route.query.aside ? 'Set aside' : (list.value?.name ?? 'Everyone')))

const scroller = ref<HTMLElement | null>(null)
const rows = useVirtualizer(
  computed(() => ({
    count: total.value,
    getScrollElement: () => scroller.value,
    estimateSize: () => 52,
    overscan: 12,
  })),
)
const asked = new Set<string>()
watch(
  () => rows.value.getVirtualItems().map((item) => Math.floor(item.index / PAGE)),
  async (wanted) => {
    for (const page of new Set(wanted)) {
      const key = `${path.value}|${page}`
      if (pages.value.has(page) || asked.has(key)) continue
      asked.add(key)
      const at = path.value
      const got = await ask<Page>(`${at}&offset=${page * PAGE}`)
      asked.delete(key)
      if (got && at === path.value) pages.value = new Map(pages.value).set(page, got.people)
    }
  },
)
const personAt = (index: number) => pages.value.get(Math.floor(index / PAGE))?.[index % PAGE]
</script>

<template>
  <div class="flex h-full flex-col">
    <div class="flex items-end justify-between">
      <div>
        <h1>{{ title }}</h1>
        <p class="muted mt-0.5">
          {{ list?.description || 'Everybody on file, the latest first.' }}
        </p>
      </div>
      <div class="text-right">
        <div class="font-head text-[24px] font-[640]">{{ count(total) }}</div>
        <div class="muted small">{{ total === 1 ? 'person' : 'people' }}</div>
      </div>
    </div>
    <p v-if="problem" class="fault mt-3" role="alert">{{ problem }}</p>
    <div v-if="!loading && total === 0" class="sheet mt-4 p-8">
      <template v-if="route.query.search"
        ><h2>Nobody is called “{{ route.query.search }}”</h2>
        <p class="muted mt-1">A part of a name or of an address is enough.</p></template
      >
      <template v-else
        ><h2>Nobody is here yet</h2>
        <p class="muted mt-1">
          Bring a list along from a file: nothing is written before you have seen how it was
          understood.
        </p>
        <NuxtLink to="/people/import" class="btn btn-go mt-3">Import people</NuxtLink></template
      >
    </div>
    <div v-else class="sheet mt-3 flex min-h-0 flex-1 flex-col overflow-hidden">
      <div
        class="muted small grid flex-none grid-cols-[minmax(240px,1.6fr)_110px_1fr_1.2fr_90px] gap-3 border-b border-line px-3 py-2"
      >
        <span>Person</span><span>Pulse</span><span>Town</span><span>Flying style</span
        ><span class="num">Joined</span>
      </div>
      <div
        ref="scroller"
        class="min-h-0 flex-1 overflow-auto"
        tabindex="0"
        role="region"
        aria-label="People, scrollable"
      >
        <div :style="{ height: `${rows.getTotalSize()}px` }" class="relative">
          <NuxtLink
            v-for="row in rows.getVirtualItems()"
            :key="row.index"
            :to="personAt(row.index) ? `/people/${personAt(row.index)!.id}` : ''"
            class="absolute inset-x-0 grid h-[52px] grid-cols-[minmax(240px,1.6fr)_110px_1fr_1.2fr_90px] items-center gap-3 border-b border-line-soft px-3 hover:bg-canvas-50"
            :style="{ transform: `translateY(${row.start}px)` }"
          >
            <template v-if="personAt(row.index)">
              <span class="min-w-0"
                ><span class="block truncate font-[560]">{{
                  personAt(row.index)!.name || personAt(row.index)!.address
                }}</span
                ><span v-if="personAt(row.index)!.name" class="muted small block truncate">{{
                  personAt(row.index)!.address
                }}</span></span
              >
              <PulseBars :bars="personAt(row.index)!.pulse" />
              <span class="truncate">{{
                showFieldValue(personAt(row.index)!.values.town) || '—'
              }}</span>
              <span class="truncate">{{
                showFieldValue(personAt(row.index)!.values.flying_style) || '—'
              }}</span>
              <span class="num small">{{ date(personAt(row.index)!.joinedAt) }}</span>
            </template>
          </NuxtLink>
        </div>
      </div>
    </div>
  </div>
</template>
