<script setup lang="ts">
/** A query of one's own over the documented views: its rows, and its people as a segment. */
interface Answer {
  columns: string[]
  rows: (string | number | null)[][]
  more: boolean
  person: number
  ms: number
}
const route = useRoute()
const { answer: about } = useAnswer<{
  mostRows: number
  mostSaved: number
  views: { name: string; about: string; columns: Record<string, string> }[]
}>(() => '/api/sql/views', { live: false })
const query = ref(
  typeof route.query.q === 'string'
    ? route.query.q
    : 'select id, address, town, opened_mailings\nfrom people\nwhere clicked_mailings > 3\norder by opened_mailings desc',
)
const answer = shallowRef<Answer | null>(null)
const asked = ref('')
const fault = ref('')
const busy = ref(false)
const name = ref('')
const open = ref<string | null>('people')

/** Whether it was asked for again while one was being answered: the last is asked next. */
let again = false
async function run() {
  again = busy.value
  if (busy.value) return
  busy.value = true
  do {
    again = false
    const wanted = query.value
    fault.value = ''
    try {
      answer.value = await question<Answer>('/api/sql/ask', { query: wanted })
      asked.value = wanted
    } catch (error) {
      answer.value = null
      fault.value = problemOf(error).message
    }
  } while (again)
  busy.value = false
}
async function save() {
  const made = await act<{ id: number; people: number }>('/api/sql/segment', 'POST', {
    name: name.value,
    query: asked.value,
  })
  if (!made) return
  useLive().changes++
  useNotices().say(`${name.value} is saved: ${people(made.people)}, who stay in it.`)
  await goTo(`/people/segments/${made.id}`)
}
const schema = computed(() =>
  Object.fromEntries(about.value?.views.map((one) => [one.name, Object.keys(one.columns)]) ?? []),
)
</script>

<template>
  <div>
    <h1>Ask in SQL</h1>
    <p class="muted mt-0.5">
      A query over the views on the right. It reads only, for at most 10 seconds; times are UTC.
    </p>
    <div class="mt-3 grid grid-cols-[minmax(0,1fr)_290px] items-start gap-4">
      <div>
        <form class="sheet p-3" @submit.prevent="run">
          <SqlEditor v-model="query" :schema="schema" @run="run" />
          <div class="mt-2 flex items-center gap-3">
            <button class="btn btn-go" :disabled="busy || !query.trim()">
              {{ busy ? 'Asking…' : 'Ask' }}
            </button>
            <span class="muted small">Ctrl Enter asks, Ctrl Space completes</span>
          </div>
        </form>
        <p v-if="fault" class="fault mt-3" role="alert">{{ fault }}</p>
        <div v-if="answer" class="sheet mt-3">
          <div class="sheet-head">
            <h2 role="status">
              {{
                answer.more
                  ? `The first ${count(answer.rows.length)} rows`
                  : rows(answer.rows.length)
              }}
            </h2>
            <span class="muted small">{{ count(answer.ms) }} ms</span>
          </div>
          <p v-if="answer.rows.length === 0" class="muted p-4">Nothing answers to this query.</p>
          <div
            v-else
            class="max-h-[420px] overflow-auto"
            tabindex="0"
            role="region"
            aria-label="Rows"
          >
            <table class="grid-table">
              <thead>
                <tr>
                  <th v-for="(column, i) in answer.columns" :key="i">{{ column }}</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="(row, i) in answer.rows" :key="i">
                  <td
                    v-for="(cell, k) in row"
                    :key="k"
                    :class="typeof cell === 'number' && k !== answer.person && 'num'"
                  >
                    <NuxtLink v-if="k === answer.person" class="link" :to="`/people/${cell}`">{{
                      cell
                    }}</NuxtLink>
                    <span v-else-if="cell === null" class="muted">none</span>
                    <template v-else>{{ typeof cell === 'number' ? count(cell) : cell }}</template>
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
          <form
            v-if="answer.person >= 0 && answer.rows.length"
            class="flex items-center gap-2 border-t border-line-soft p-3"
            @submit.prevent="save"
          >
            <input
              v-model="name"
              class="field !w-64"
              aria-label="Name of the segment"
              placeholder="Name of a segment"
              maxlength="100"
            />
            <button class="btn" :disabled="!name.trim()">Save as segment</button>
            <span class="muted small">All its people as they are now; they stay in it.</span>
          </form>
        </div>
      </div>
      <aside class="sheet" aria-label="Views">
        <div class="sheet-head"><h2>What can be asked</h2></div>
        <div
          v-for="one in about?.views"
          :key="one.name"
          class="border-t border-line-soft first:border-0"
        >
          <button
            type="button"
            class="block w-full px-3 py-2 text-left"
            :aria-expanded="open === one.name"
            @click="open = open === one.name ? null : one.name"
          >
            <b class="font-[560]">{{ one.name }}</b>
            <span class="muted small block">{{ one.about }}</span>
          </button>
          <dl v-if="open === one.name" class="small px-3 pb-3">
            <template v-for="(words, column) in one.columns" :key="column">
              <dt class="mt-1">{{ column }}</dt>
              <dd class="muted ml-3">{{ words }}</dd>
            </template>
          </dl>
        </div>
      </aside>
    </div>
  </div>
</template>
