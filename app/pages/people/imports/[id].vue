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
  created_at: number
  progress: { done: number; total: number; error: string | null } | null
  columns: { header: string; target: ColumnTarget }[]
  refusedRows: { row: number; reason: string; cells: string }[]
  doubtfulRows: { row: number; reason: string; cells: string }[]
}
const route = useRoute()
const { dayAndTime } = useTimes()
const { answer: report, problem } = useAnswer<Report>(
  () => `/api/imports/${String(route.params.id)}`,
)
const running = computed(
  () => report.value?.state === 'waiting' || report.value?.state === 'running',
)
const parts = computed(() =>
  report.value
    ? ([
        ['added', report.value.added, 'New on file'],
        ['changed', report.value.changed, 'Were on file, and something changed'],
        ['unchanged', report.value.unchanged, 'Were on file, nothing changed'],
        ['repeated', report.value.repeated, 'Repeated in the file'],
        ['never mailed', report.value.never_mail, 'Have left or are set aside; not brought back'],
        ['refused', report.value.refused, 'Nobody could be told from the row'],
      ] as const)
    : [],
)
const shown = (cells: string) =>
  (JSON.parse(cells) as string[]).filter(Boolean).join(' · ').slice(0, 90)
const cancel = () => ask(`/api/imports/${String(route.params.id)}/cancel`, { method: 'POST' })
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
        <span role="status">{{ count(report.rows) }} rows written so far</span
        ><button class="btn btn-sm" @click="cancel">Cancel</button>
      </div>
      <ProgressBar
        label="Import"
        :done="report.progress?.done ?? 0"
        :total="report.progress?.total ?? 1"
      />
    </div>
    <p v-if="report.progress?.error" class="fault mt-3" role="alert">{{ report.progress.error }}</p>
    <div class="sheet mt-4">
      <div class="sheet-head">
        <h2>What became of {{ count(report.rows) }} rows</h2>
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
    <div v-if="report.refusedRows.length" class="sheet mt-4">
      <div class="sheet-head">
        <h2>Refused rows</h2>
        <a class="btn btn-sm" :href="`/api/imports/${report.id}/refused.csv`" download
          >Take them out as CSV</a
        >
      </div>
      <table class="grid-table">
        <thead>
          <tr>
            <th class="num w-16">Row</th>
            <th>Reason</th>
            <th>In the file</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in report.refusedRows" :key="row.row">
            <td class="num">{{ row.row }}</td>
            <td>{{ row.reason }}</td>
            <td class="muted small">{{ shown(row.cells) || 'no text' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="report.doubtfulRows.length" class="sheet mt-4">
      <div class="sheet-head">
        <h2>Taken, but doubtful</h2>
        <span class="small muted">{{ report.doubtfulRows.length }}</span>
      </div>
      <table class="grid-table">
        <tbody>
          <tr v-for="row in report.doubtfulRows" :key="row.row">
            <td class="num w-16">{{ row.row }}</td>
            <td>{{ row.reason }}</td>
            <td class="muted small">{{ shown(row.cells) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="!running" class="mt-4 flex gap-2">
      <NuxtLink to="/people" class="btn">See everyone</NuxtLink
      ><button class="btn btn-go" @click="writeLetter">Write a letter</button>
    </div>
  </div>
</template>
