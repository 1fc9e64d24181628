<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { type Field, type FieldValue } from '~~/core/people'

interface Person {
  id: number
  address: string
  name: string
  values: Record<string, FieldValue>
  joinedAt: number
  orders: number
  spent: number
  openedAt: number | null
  tier: string
  pulse: ('clicked' | 'opened' | 'delivered' | 'not-sent' | 'bounced')[]
}
interface Page {
  count: number
  people: Person[]
}
interface Column {
  key: string
  name: string
  width: string
  num?: boolean
  show: (person: Person) => string
}
const PAGE = 100
/** What of the page's address says whom the table shows. */
const filters = ['list', 'tag', 'segment', 'aside', 'search'] as const
const route = useRoute()
const session = useSession()
const { date } = useTimes()
const overview = useAnswer<{
  lists: { id: number; name: string; description: string }[]
  tags: { id: number; name: string }[]
  segments: { id: number; name: string }[]
  fields: Field[]
}>(() => '/api/people/overview', { live: false })
const path = computed(() => {
  const query = new URLSearchParams()
  for (const key of [...filters, 'sort', 'way'])
    if (route.query[key]) query.set(key, String(route.query[key]))
  return `/api/people?${query}`
})
const { answer: first, loading, problem, reload } = useAnswer<Page>(() => path.value)
const pages = shallowRef(new Map<number, Person[]>())
watch(first, (page) => page && (pages.value = new Map([[0, page.people]])))
const total = computed(() => first.value?.count ?? 0)
const list = computed(() =>
  overview.answer.value?.lists.find((one) => String(one.id) === route.query.list),
)
const tag = computed(() =>
  overview.answer.value?.tags.find((one) => String(one.id) === route.query.tag),
)
const segment = computed(() =>
  overview.answer.value?.segments.find((one) => String(one.id) === route.query.segment),
)
const title = computed(
  () =>
    [
      segment.value?.name,
      list.value?.name,
      tag.value && `tagged ${tag.value.name}`,
      route.query.aside && 'suppressed',
    ]
      .filter((part) => part)
      .map((part, i) => (i === 0 ? part![0]!.toUpperCase() + part!.slice(1) : part))
      .join(', ') || 'Everyone',
)
const choices = computed(() =>
  [
    { key: 'segment' as const, name: 'Segment', all: overview.answer.value?.segments ?? [] },
    { key: 'list' as const, name: 'List', all: overview.answer.value?.lists ?? [] },
    { key: 'tag' as const, name: 'Tag', all: overview.answer.value?.tags ?? [] },
  ].filter(({ all, key }) => all.length || route.query[key]),
)
const isFiltered = computed(() => filters.some((key) => route.query[key]))
function filterBy(key: (typeof filters)[number], value: string) {
  void goTo({ query: { ...route.query, [key]: value || undefined } })
}

const currency = computed(() => session.account?.currency ?? 'GBP')
const known = computed<Column[]>(() => [
  ...(overview.answer.value?.fields ?? [])
    .filter(({ key }) => !key.endsWith('_name'))
    .map(({ key, name, kind }) => ({
      key: `field:${key}`,
      name,
      width: 'minmax(90px,1fr)',
      num: kind === 'number',
      show: (person: Person) => valueWords(person.values[key], kind) || '—',
    })),
  { key: 'engagement', name: 'Engagement', width: '90px', show: ({ tier }) => tier },
  {
    key: 'spent',
    name: 'Bought',
    width: '110px',
    num: true,
    show: ({ orders, spent }) => (orders ? `${orders} · ${money(spent, currency.value)}` : '—'),
  },
  {
    key: 'opened',
    name: 'Last opened',
    width: '100px',
    num: true,
    show: ({ openedAt }) => (openedAt === null ? '—' : date(openedAt)),
  },
  {
    key: 'joined',
    name: 'Joined',
    width: '100px',
    num: true,
    show: ({ joinedAt }) => date(joinedAt),
  },
])
const shownKeys = useLocalStorage('people-columns', ['field:town', 'engagement', 'spent', 'joined'])
const columns = computed(() =>
  shownKeys.value.flatMap((key) => known.value.filter((column) => column.key === key)),
)
const grid = computed(
  () => `28px minmax(220px,1.6fr) 104px ${columns.value.map(({ width }) => width).join(' ')}`,
)
/** So wide is the table at least, px; where there is less room, it is moved sideways. */
const least = computed(() => {
  const widths = grid.value
    .split(/ (?![^(]*\))/)
    .map((one) => Number(/(\d+)px/.exec(one)?.[1] ?? 80))
  const GAP = 12
  return widths.reduce((sum, width) => sum + width + GAP, GAP)
})

const sort = computed(() => String(route.query.sort ?? 'joined'))
const down = computed(() => route.query.way !== 'up')
function sortBy(key: string) {
  const way = sort.value === key && down.value ? 'up' : undefined
  void goTo({ query: { ...route.query, sort: key, way } }, { replace: true })
}

const chosen = ref(new Set<number>())
watch(path, () => (chosen.value = new Set()))
let lastChosen = -1
function choose(index: number, event: MouseEvent) {
  const next = new Set(chosen.value)
  const on = !next.has(personAt(index)!.id)
  const from = event.shiftKey && lastChosen >= 0 ? lastChosen : index
  for (let i = Math.min(from, index); i <= Math.max(from, index); i++) {
    const person = personAt(i)
    if (person && on) next.add(person.id)
    else if (person) next.delete(person.id)
  }
  lastChosen = index
  chosen.value = next
}

const scroller = ref<HTMLElement | null>(null)
const ROW = 48
const long = useLongRows(scroller, () => total.value, ROW)
watch(path, long.toTop)
const asked = new Set<string>()
watch(
  () => long.of.value.rows.map(({ index }) => Math.floor(index / PAGE)),
  async (wanted) => {
    for (const page of new Set(wanted)) {
      const key = `${path.value}|${page}`
      if (pages.value.has(page) || asked.has(key)) continue
      asked.add(key)
      const at = path.value
      const before = pages.value.get(page - 1)?.at(-1)
      const after = before ? `&after=${before.id}` : ''
      const got = await ask<Page>(`${at}&offset=${page * PAGE}${after}`)
      asked.delete(key)
      if (got && at === path.value) pages.value = new Map(pages.value).set(page, got.people)
    }
  },
)
const personAt = (index: number) => pages.value.get(Math.floor(index / PAGE))?.[index % PAGE]
/** The people of the table, as the server is asked for them. */
const shown = computed(() =>
  Object.fromEntries(
    filters.flatMap((key) => (route.query[key] ? [[key, String(route.query[key])]] : [])),
  ),
)
const takeOut = ref(false)
const choosingAll = ref(false)
async function chooseAll() {
  choosingAll.value = true
  const at = path.value
  const ids = await ask<number[]>(`/api/people/ids?${new URLSearchParams(shown.value)}`)
  choosingAll.value = false
  if (ids && at === path.value) chosen.value = new Set(ids)
}
</script>

<template>
  <div class="flex h-full flex-col">
    <div class="flex items-end justify-between gap-4">
      <div class="min-w-0 flex-1">
        <h1 class="truncate" :title="title">{{ title }}</h1>
        <p class="muted mt-0.5 truncate">
          {{ list?.description || (isFiltered ? 'Of everybody on file.' : 'Everybody on file.') }}
        </p>
      </div>
      <div class="flex flex-none items-end gap-3">
        <FilterChoice
          v-for="choice in choices"
          :key="choice.key"
          :name="choice.name"
          :all="choice.all"
          :chosen="String(route.query[choice.key] ?? '')"
          @choose="filterBy(choice.key, $event)"
        />
        <details class="relative">
          <summary class="btn btn-sm list-none">Columns</summary>
          <div
            class="floats absolute right-0 z-20 mt-1 w-60 rounded-md border border-line bg-sheet p-2"
          >
            <ColumnChoice v-model="shownKeys" :columns="known" />
          </div>
        </details>
        <button
          v-may="'POST /api/people/export'"
          v-if="total"
          type="button"
          class="btn btn-sm"
          @click="takeOut = true"
        >
          Export…
        </button>
        <div class="text-right" role="status" aria-label="How many are found">
          <div class="font-head text-[24px] font-[640]">
            {{ loading || !first ? '…' : count(total) }}
          </div>
          <div class="muted small">{{ total === 1 ? 'person' : 'people' }}</div>
        </div>
      </div>
    </div>
    <p v-if="problem" class="fault mt-3" role="alert">{{ problem }}</p>
    <div v-if="!loading && total === 0" class="sheet mt-4 p-8">
      <template v-if="route.query.search"
        ><h2>Nobody is called “{{ route.query.search }}”</h2>
        <p class="muted mt-1">A part of a name or of an address is enough.</p></template
      >
      <template v-else-if="isFiltered"
        ><h2>Nobody is all of this</h2>
        <p class="muted mt-1">
          <button type="button" class="link" @click="goTo({ query: {} })">Show everybody</button>
        </p></template
      >
      <template v-else
        ><h2>Nobody is here yet</h2>
        <p class="muted mt-1">
          Bring a list along from a file: nothing is written before you have seen how it was
          understood.
        </p>
        <NuxtLink v-may="'POST /api/imports'" to="/people/import" class="btn btn-go mt-3"
          >Import people</NuxtLink
        ></template
      >
    </div>
    <div v-else class="sheet mt-3 min-h-0 flex-1 overflow-x-auto overflow-y-hidden">
      <div class="flex h-full flex-col" :style="{ minWidth: `${least}px` }">
        <PeopleActs
          v-may="'POST /api/people/act'"
          v-if="chosen.size"
          :ids="[...chosen]"
          :total="total"
          :choosing-all="choosingAll"
          :lists="overview.answer.value?.lists ?? []"
          @all="chooseAll"
          @clear="chosen = new Set()"
          @done="(reload(), useLive().changes++)"
        />
        <div
          class="muted small grid flex-none items-center gap-3 border-b border-line px-3 py-1"
          :style="{ gridTemplateColumns: grid }"
        >
          <label class="grid h-6 w-6 place-items-center"
            ><input
              type="checkbox"
              aria-label="Choose everybody in this table"
              :checked="total > 0 && chosen.size === total"
              :disabled="choosingAll || total === 0"
              @change="chosen.size === total ? (chosen = new Set()) : chooseAll()"
          /></label>
          <SortButton
            name="Person"
            :state="sort === 'name' ? (down ? 'down' : 'up') : null"
            @sort="sortBy('name')"
          /><span>Pulse</span>
          <SortButton
            v-for="column in columns"
            :key="column.key"
            :name="column.name"
            :class="column.num && 'justify-self-end'"
            :state="sort === column.key ? (down ? 'down' : 'up') : null"
            @sort="sortBy(column.key)"
          />
        </div>
        <div
          ref="scroller"
          class="min-h-0 flex-1 overflow-auto"
          tabindex="0"
          role="region"
          aria-label="People, scrollable"
        >
          <div :style="{ height: `${long.of.value.height}px` }" class="relative">
            <div
              v-for="row in long.of.value.rows"
              :key="row.index"
              class="absolute inset-x-0 grid h-[48px] items-center gap-3 border-b border-line-soft px-3 hover:bg-canvas-50"
              :style="{ transform: `translateY(${row.top}px)`, gridTemplateColumns: grid }"
            >
              <template v-if="personAt(row.index)">
                <label class="grid h-6 w-6 place-items-center"
                  ><input
                    type="checkbox"
                    :checked="chosen.has(personAt(row.index)!.id)"
                    :aria-label="`Choose ${personAt(row.index)!.name || personAt(row.index)!.address}`"
                    @click="choose(row.index, $event)"
                /></label>
                <NuxtLink :to="`/people/${personAt(row.index)!.id}`" class="min-w-0"
                  ><span class="block truncate font-[560]">{{
                    personAt(row.index)!.name || personAt(row.index)!.address
                  }}</span
                  ><span v-if="personAt(row.index)!.name" class="muted small block truncate">{{
                    personAt(row.index)!.address
                  }}</span></NuxtLink
                >
                <PulseBars :bars="personAt(row.index)!.pulse" />
                <span
                  v-for="column in columns"
                  :key="column.key"
                  class="truncate"
                  :class="column.num && 'num'"
                  >{{ column.show(personAt(row.index)!) }}</span
                >
              </template>
            </div>
          </div>
        </div>
      </div>
    </div>
    <TakeOutDialog
      v-if="takeOut"
      :which="shown"
      :about="`${people(total)}: ${title}${route.query.search ? `, found by “${route.query.search}”` : ''}.`"
      @close="takeOut = false"
    />
  </div>
</template>
