<script setup lang="ts">
interface Row {
  id: number
  name: string
  state: string
  inside: number
  finished: number
  archived_at: number | null
}
const route = useRoute()
const live = useLive()
const { answer } = useAnswer<Row[]>(() => '/api/sequences')
const sequences = computed(
  () => answer.value?.filter(({ id }) => !isGone(`/api/sequences/${id}`)) ?? null,
)
const view = useLabelView('sequence')
const shown = computed(() => view.kept(sequences.value))
const listed = computed(() => shown.value?.filter((row) => row.archived_at === null) ?? null)
const archived = computed(() => shown.value?.filter((row) => row.archived_at !== null) ?? [])
/** Whether the archive is open: also where one stands in it. */
const looksIn = ref(false)
watch(
  [archived, () => route.params.id],
  ([rows, id]) => (looksIn.value ||= rows.some((row) => String(row.id) === id)),
)
/** The list under its headings: those that run or may, or each label; and the archive. */
const groups = computed(() => [
  ...(view
    .groups(listed.value)
    ?.map(({ label, rows }) => ({ title: label?.name ?? 'No label', rows })) ?? [
    { title: '', rows: listed.value ?? [] },
  ]),
  ...(looksIn.value && archived.value.length ? [{ title: 'Archived', rows: archived.value }] : []),
])
useLanding(
  () => '/sequences',
  () => listed.value?.[0] && view.at(`/sequences/${listed.value[0].id}`),
)
/** Above it a file is none of a sequence, letters and all. */
const LARGEST = 1_800_000
const bringing = ref(false)
async function bring(input: HTMLInputElement) {
  const goOn = wayOn()
  const file = input.files?.[0]
  // So that the same file can be chosen again.
  const text = file && file.size <= LARGEST ? await file.text().catch(() => '') : ''
  input.value = ''
  if (!file) return
  if (file.size > LARGEST)
    return useNotices().say(
      'This file is larger than 1.8 MB, which no sequence is. Is it the right one?',
    )
  bringing.value = true
  const made = await act<{ id: number; missing: string[] }>('/api/sequences/from-file', 'POST', {
    text,
  })
  bringing.value = false
  if (!made) return
  live.changes++
  useSequence().tellMissing(made.id, made.missing)
  await goOn(`/sequences/${made.id}`, 'The sequence of the file is there.')
}
async function begin() {
  const goOn = wayOn()
  // How many there are may not be known yet.
  const known = sequences.value ?? (await request<Row[]>('/api/sequences').catch(() => []))
  const body = { name: `Sequence ${known.length + 1}` }
  const made = await act<{ id: number }>('/api/sequences', 'POST', body)
  if (!made) return
  live.changes++
  await goOn(`/sequences/${made.id}`, 'The sequence is begun.')
}
useKeys((event) => {
  if (isWriting(event) || event.ctrlKey || event.metaKey) return
  if (event.key === 'n') return void begin()
  const rows = [...new Set(groups.value.flatMap((group) => group.rows))]
  const here = rows.findIndex((row) => String(row.id) === route.params.id)
  const next = event.key === 'j' ? rows[here + 1] : event.key === 'k' ? rows[here - 1] : undefined
  if (next) void goTo(view.at(`/sequences/${next.id}`))
})
</script>

<template>
  <div class="flex h-full">
    <nav class="side w-[230px]" aria-label="Sequences">
      <div class="px-4 pb-2">
        <button
          v-may="'POST /api/sequences'"
          class="btn btn-sm w-full justify-center text-center"
          @click="begin"
        >
          New sequence
        </button>
        <label
          v-may="'POST /api/sequences/from-file'"
          class="btn btn-sm mt-1.5 w-full cursor-pointer justify-center text-center focus-within:outline-2"
          :class="bringing && 'opacity-60'"
          >{{ bringing ? 'Reading…' : 'From a file'
          }}<input
            type="file"
            class="sr-only"
            accept=".json,application/json"
            :disabled="bringing"
            @change="bring($event.target as HTMLInputElement)"
        /></label>
      </div>
      <LabelView class="px-4 pb-2" :view="view" />
      <p v-if="shown && view.label && !shown.length" class="muted small px-4 py-2">
        No sequence has this label.
      </p>
      <template v-for="(group, i) in groups" :key="i">
        <h2 v-if="group.title" class="side-title">{{ group.title }}</h2>
        <NuxtLink
          v-for="row in group.rows"
          :key="row.id"
          :to="view.at(`/sequences/${row.id}`)"
          class="side-item flex-col !gap-0"
          active-class="here"
        >
          <span class="truncate">{{ row.name }}</span><span
            class="muted small flex items-center justify-between font-normal"
            ><StateMark :state="row.state" /><span>{{ count(row.inside) }} inside</span></span
          >
          <LabelMarks :labels="view.marks(row.id, group.title)" class="mt-0.5" />
        </NuxtLink>
      </template>
      <button
        v-if="archived.length"
        type="button"
        class="link mx-4 mt-2 block text-left"
        :aria-expanded="looksIn"
        @click="looksIn = !looksIn"
      >
        {{ looksIn ? 'Hide what is archived' : `Archived (${count(archived.length)})` }}
      </button>
    </nav>
    <div class="min-w-0 flex-1">
      <NuxtPage />
      <div
        v-if="listed && !listed.length && !view.label && route.path === '/sequences'"
        class="mx-auto max-w-md px-4 pt-[12vh]"
      >
        <h1>{{ archived.length ? 'All are archived' : 'No sequences yet' }}</h1>
        <p class="muted mt-1">
          A sequence is mail that sends itself: somebody joins, a letter goes out, it waits some
          days, and the next one follows. Here it will stand who is inside, and at which step.
        </p>
        <button v-may="'POST /api/sequences'" class="btn btn-go mt-4" @click="begin">
          Begin one
        </button>
      </div>
    </div>
  </div>
</template>
