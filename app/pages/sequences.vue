<script setup lang="ts">
interface Row {
  id: number
  name: string
  state: string
  inside: number
  finished: number
}
const route = useRoute()
const live = useLive()
const { answer } = useAnswer<Row[]>(() => '/api/sequences')
const sequences = computed(
  () => answer.value?.filter(({ id }) => !isGone(`/api/sequences/${id}`)) ?? null,
)
useLanding(
  () => '/sequences',
  () => sequences.value?.[0] && `/sequences/${sequences.value[0].id}`,
)
async function begin() {
  // How many there are may not be known yet.
  const known = sequences.value ?? (await request<Row[]>('/api/sequences').catch(() => []))
  const body = { name: `Sequence ${known.length + 1}` }
  const made = await act<{ id: number }>('/api/sequences', 'POST', body)
  if (!made) return
  live.changes++
  await goTo(`/sequences/${made.id}`)
}
useKeys((event) => {
  if (isWriting(event) || event.ctrlKey || event.metaKey) return
  if (event.key === 'n') return void begin()
  const rows = sequences.value ?? []
  const here = rows.findIndex((row) => String(row.id) === route.params.id)
  const next = event.key === 'j' ? rows[here + 1] : event.key === 'k' ? rows[here - 1] : undefined
  if (next) void goTo(`/sequences/${next.id}`)
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
      </div>
      <NuxtLink
        v-for="row in sequences"
        :key="row.id"
        :to="`/sequences/${row.id}`"
        class="side-item flex-col !gap-0"
        active-class="here"
      >
        <span class="truncate">{{ row.name }}</span><span
          class="muted small flex items-center justify-between font-normal"
          ><StateMark :state="row.state" /><span>{{ count(row.inside) }} inside</span></span
        >
      </NuxtLink>
    </nav>
    <div class="min-w-0 flex-1">
      <NuxtPage />
      <div
        v-if="sequences && !sequences.length && route.path === '/sequences'"
        class="mx-auto max-w-md px-4 pt-[12vh]"
      >
        <h1>No sequences yet</h1>
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
