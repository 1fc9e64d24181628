<script setup lang="ts">
/** Who did what, from where; nobody can change it. */
interface Entry {
  id: number
  at: number
  user_name: string
  did: string
  what: string
  address: string
  device: string
}
const { dayAndTime } = useTimes()
const { answer: latest, problem } = useAnswer<Entry[]>(() => '/api/audit')
const earlier = ref<Entry[]>([])
const isWhole = ref(false)
const entries = computed(() => {
  const first = earlier.value[0]?.id
  const newer = (latest.value ?? []).filter(({ id }) => first === undefined || id > first)
  return [...newer, ...earlier.value]
})
async function more() {
  const last = entries.value.at(-1)
  if (!last) return
  const got = await ask<Entry[]>(`/api/audit?before=${last.id}`)
  if (!got) return
  isWhole.value = got.length === 0
  earlier.value = [...entries.value, ...got]
}
/** The page of what it was done to, where there is one. */
function pageOf(what: string): string | null {
  const [, kind, id] = /^\/(mailings|people|sequences|segments)\/(\d+)/.exec(what) ?? []
  if (!kind) return null
  const place = {
    mailings: '/mail',
    people: '/people',
    sequences: '/sequences',
    segments: '/people/segments',
  }
  return `${place[kind as keyof typeof place]}/${id}`
}
</script>

<template>
  <div class="mx-auto max-w-3xl px-6 py-5">
    <h1>Settings</h1>
    <SettingsNav />
    <section class="sheet mt-4 p-5" aria-labelledby="audit-title">
      <div class="flex items-baseline gap-4">
        <h2 id="audit-title">Audit log</h2>
        <a class="link ml-auto" href="/api/audit.csv" download>Export as CSV</a>
      </div>
      <p class="muted">
        What people who work here changed. It is kept for two years, and no page can change it.
      </p>
      <p v-if="problem" class="fault mt-2" role="alert">{{ problem }}</p>
      <p v-else-if="!latest" class="muted mt-3">Asking…</p>
      <p v-else-if="!entries.length" class="muted mt-3">Nobody has changed anything yet.</p>
      <table v-else class="grid-table mt-2">
        <thead>
          <tr>
            <th>When</th>
            <th>Who</th>
            <th>Did</th>
            <th>From</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in entries" :key="one.id">
            <td class="muted whitespace-nowrap">{{ dayAndTime(one.at) }}</td>
            <td>{{ one.user_name }}</td>
            <td>
              {{ one.did }}
              <NuxtLink v-if="pageOf(one.what)" :to="pageOf(one.what)!" class="link small">{{
                one.what
              }}</NuxtLink>
              <span v-else class="muted small">{{ one.what }}</span>
            </td>
            <td class="muted small">{{ one.address }}<br />{{ one.device }}</td>
          </tr>
        </tbody>
      </table>
      <button v-if="entries.length >= 100 && !isWhole" type="button" class="btn mt-3" @click="more">
        Earlier
      </button>
    </section>
  </div>
</template>
