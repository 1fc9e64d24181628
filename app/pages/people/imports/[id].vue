<script setup lang="ts">
import type { ColumnTarget } from '~~/core/people'

interface Report {
  id: number
  file_name: string
  state: string
  list: string | null
  statement: string
  rows: number
  added: number
  changed: number
  unchanged: number
  repeated: number
  refused: number
  never_mail: number
  skipped: number
  mode: string
  tag: string | null
  created_at: number
  now: number
  undoUntil: number | null
  preview: {
    counts: Record<
      'added' | 'changed' | 'unchanged' | 'repeated' | 'refused' | 'never_mail' | 'skipped',
      number
    >
    /** Missing where it was counted before there were sequences. */
    sequences?: { id: number; name: string; people: number }[]
  } | null
  undone: { removed: number; kept: number; putBack: number; made?: number } | null
  progress: { done: number; total: number; error: string | null } | null
  columns: { header: string; target: ColumnTarget }[]
  repeats: 'first' | 'last'
  noticed: { refused: number; doubtful: number; leftOut: number }
}
const route = useRoute()
const { dayAndTime } = useTimes()
const {
  answer: report,
  problem,
  reload,
} = useAnswer<Report>(() => `/api/imports/${String(route.params.id)}`)
const running = computed(() =>
  ['waiting', 'running', 'counting', 'undoing'].includes(report.value?.state ?? ''),
)
const counted = computed(() => (report.value?.state === 'counted' ? report.value.preview : null))
const canUndo = computed(
  () => report.value?.undoUntil != null && report.value.now <= report.value.undoUntil,
)
/** What became of the rows, or would. */
const parts = computed(() => {
  const of = counted.value?.counts ?? report.value
  if (!of) return []
  return (
    [
      ['new', of.added, counted.value ? 'Not on file yet' : 'Were not on file before'],
      ['changed', of.changed, 'On file, and a value, a tag or a list changes'],
      ['unchanged', of.unchanged, 'On file, and nothing changes'],
      [
        'repeated',
        of.repeated,
        report.value?.repeats === 'first'
          ? 'Address met before in the file; the first row counts'
          : 'Address met before in the file; the last row counts',
      ],
      ['never mailed', of.never_mail, 'Have left or are suppressed; not brought back'],
      ['left out', of.skipped, 'Not what was chosen to be written, or left out by hand'],
      ['refused', of.refused, 'Nobody can be told from the row'],
    ] as const
  ).filter(([name, n]) => n > 0 || name !== 'left out')
})
const total = computed(() => parts.value.reduce((sum, [, n]) => sum + n, 0))
const writes = computed(() => {
  const { added, changed } = counted.value?.counts ?? { added: 0, changed: 0 }
  return Math.max(0, added + changed - (report.value?.noticed.leftOut ?? 0))
})
const startSequences = ref(false)
const letting = ref(false)
const busy = ref(false)
/** Who is new by it comes into a sequence, as far as they may. */
async function letIn(sequence: { id: number; name: string }) {
  busy.value = true
  const body = { importId: report.value!.id }
  const done = await act<{ people: number }>(`/api/sequences/${sequence.id}/people`, 'POST', body)
  busy.value = false
  if (!done) return
  letting.value = false
  useNotices().say(
    `${people(done.people)} on their way into “${sequence.name}”, as far as its rule lets them.`,
  )
}
async function tell(what: 'start' | 'undo' | 'cancel') {
  const body = what === 'start' ? { startSequences: startSequences.value } : undefined
  await act(`/api/imports/${String(route.params.id)}/${what}`, 'POST', body)
  await reload()
  useLive().changes++
}
</script>

<template>
  <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
  <div v-else-if="report">
    <div class="flex items-start justify-between">
      <div>
        <h1>{{ report.file_name }}</h1>
        <p class="muted mt-0.5">
          Import of {{ dayAndTime(report.created_at)
          }}<template v-if="report.list">
            · joins {{ report.list }} · “{{ report.statement }}”</template
          >
        </p>
      </div>
      <StateMark :state="report.state" />
    </div>
    <div v-if="running" class="sheet mt-4 p-4">
      <div class="mb-2 flex items-center justify-between">
        <span role="status">{{
          report.state === 'counting'
            ? 'Counting what would happen; nothing is written'
            : report.state === 'undoing'
              ? 'Putting back what it changed'
              : `${count(report.rows)} rows written so far`
        }}</span><button class="btn btn-sm" @click="tell('cancel')">Cancel</button>
      </div>
      <ProgressBar
        label="Import"
        :done="report.progress?.done ?? 0"
        :total="report.progress?.total ?? 1"
      />
    </div>
    <p v-if="counted" class="mt-3 rounded-md border border-brass-500 bg-brass-100 px-3 py-2">
      Nothing is written yet. Look at the numbers, then import, or
      <NuxtLink :to="`/people/import?again=${report.id}`" class="link"
        >go back to the columns</NuxtLink
      >
      or <NuxtLink to="/people/import" class="link">choose another file</NuxtLink>.
    </p>
    <p v-if="report.undone" class="mt-3 rounded-md border border-line bg-sheet px-3 py-2">
      Undone: {{ people(report.undone.removed) }} removed, {{ count(report.undone.putBack) }} put
      back as they were<template v-if="report.undone.kept"
        >, {{ count(report.undone.kept) }} kept because something happened with them since</template
      ><template v-if="report.undone.made"
        >; {{ several(report.undone.made, 'field or tag', 'fields and tags') }} that it had made
        gone with them</template
      >.
    </p>
    <p v-if="report.progress?.error" class="fault mt-3" role="alert">{{ report.progress.error }}</p>
    <div class="sheet mt-4">
      <div class="sheet-head">
        <h2>{{ counted ? 'What would become of' : 'What became of' }} {{ rows(total) }}</h2>
        <button v-if="counted" type="button" class="btn btn-go" @click="tell('start')">
          {{ writes ? `Import: write ${people(writes)}` : 'Import' }}
        </button>
        <button v-else-if="canUndo" type="button" class="btn btn-sm" @click="tell('undo')">
          Undo this import
        </button>
      </div>
      <table class="grid-table">
        <tbody>
          <tr v-for="[name, n, about] in parts" :key="name">
            <td class="w-40 first-letter:uppercase">{{ name }}</td>
            <td class="num w-24 font-semibold">{{ count(n) }}</td>
            <td class="muted">{{ about }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="counted?.sequences?.length" class="sheet mt-4">
      <div class="sheet-head">
        <h2>Sequences that could start</h2>
        <label class="flex items-center gap-2"
          ><input v-model="startSequences" type="checkbox" />Let them start</label
        >
      </div>
      <table class="grid-table">
        <tbody>
          <tr v-for="one in counted.sequences" :key="one.id">
            <td class="w-56">
              <NuxtLink class="link" :to="`/sequences/${one.id}`">{{ one.name }}</NuxtLink>
            </td>
            <td class="num w-24 font-semibold">{{ count(one.people) }}</td>
            <td class="muted">
              would join its list by this import{{
                startSequences ? ' and come in' : '; as it stands, they stay out'
              }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <ImportRows
      v-if="report.noticed.refused"
      :import-id="report.id"
      verdict="refused"
      :total="report.noticed.refused"
    />
    <ImportRows
      v-if="report.noticed.doubtful"
      :import-id="report.id"
      verdict="doubtful"
      :total="report.noticed.doubtful"
      :left-out="report.noticed.leftOut"
      :choosing="counted !== null"
      @changed="reload"
    />
    <div v-if="!running && !counted" class="mt-4 flex gap-2">
      <NuxtLink to="/people" class="btn">See everyone</NuxtLink
      ><button
        v-if="report.added && !report.undone"
        v-may="'POST /api/sequences/[id]/people'"
        class="btn"
        @click="letting = true"
      >
        Let them into a sequence…</button
      ><button class="btn btn-go" @click="writeLetter">Write a letter</button>
    </div>
    <LetInDialog
      v-if="letting"
      :about="`${people(report.added)} who were not on file before this import.`"
      :busy="busy"
      @close="letting = false"
      @done="letIn"
    />
  </div>
</template>
