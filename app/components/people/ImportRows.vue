<script setup lang="ts">
/** Rows of an import that are refused or doubtful, page by page; doubtful ones can be left out before anything is written. */
const { importId, verdict, total, leftOut, choosing } = defineProps<{
  importId: number
  verdict: 'refused' | 'doubtful'
  total: number
  leftOut?: number
  /** Nothing is written yet, so that rows can be left out. */
  choosing?: boolean
}>()
const emit = defineEmits<{ changed: [] }>()

interface Row {
  row: number
  reason: string
  cells: string
  left_out: number
}
const rowsRead = ref<Row[]>([])
const more = ref(false)
const reading = ref(false)

async function readOn() {
  if (reading.value) return
  reading.value = true
  const after = rowsRead.value.at(-1)?.row ?? 0
  const page = await ask<{ rows: Row[]; more: boolean }>(
    `/api/imports/${importId}/rows?verdict=${verdict}&after=${after}`,
  )
  reading.value = false
  if (!page) return
  rowsRead.value = [...rowsRead.value, ...page.rows]
  more.value = page.more
}
watch(
  () => total,
  () => {
    rowsRead.value = []
    void readOn()
  },
  { immediate: true },
)

/** Leaves a row out, or takes it in again; `row` null: every doubtful one. */
async function leave(row: number | null, out: boolean) {
  const done = await act(`/api/imports/${importId}/rows`, 'PUT', { row, out })
  if (!done) return
  for (const one of rowsRead.value) if (row === null || one.row === row) one.left_out = out ? 1 : 0
  emit('changed')
}
const shown = (cells: string) =>
  (JSON.parse(cells) as string[]).filter(Boolean).join(' · ').slice(0, 90)
</script>

<template>
  <section class="sheet mt-4">
    <div class="sheet-head">
      <h2>
        {{
          verdict === 'refused'
            ? 'Refused rows'
            : choosing
              ? 'Doubtful rows'
              : 'Taken, but doubtful'
        }}
      </h2>
      <span class="flex items-center gap-3">
        <span class="small muted"
          >{{ count(total)
          }}<template v-if="leftOut">, {{ count(leftOut) }} left out</template></span
        >
        <button
          v-if="choosing"
          type="button"
          class="btn btn-sm"
          @click="leave(null, leftOut !== total)"
        >
          {{ leftOut === total ? 'Take all in again' : 'Leave all out' }}
        </button>
        <a
          class="btn btn-sm"
          :href="`/api/imports/${importId}/rows.csv?verdict=${verdict}`"
          download
          >Export as CSV</a
        >
      </span>
    </div>
    <table class="grid-table">
      <thead>
        <tr>
          <th class="num w-16">Row</th>
          <th>{{ verdict === 'refused' ? 'Reason' : 'What is doubtful' }}</th>
          <th>In the file</th>
          <th v-if="choosing" class="w-24">Leave out</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in rowsRead" :key="one.row" :class="one.left_out === 1 && 'text-ink-500'">
          <td class="num">{{ one.row }}</td>
          <td>{{ one.reason }}</td>
          <td class="muted small">{{ shown(one.cells) || 'no text' }}</td>
          <td v-if="choosing">
            <input
              type="checkbox"
              :aria-label="`Leave out row ${one.row}`"
              :checked="one.left_out === 1"
              @change="leave(one.row, ($event.target as HTMLInputElement).checked)"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="more" class="px-4 py-2">
      <button type="button" class="btn btn-sm" :disabled="reading" @click="readOn">
        Show more; {{ count(total - rowsRead.length) }} are left
      </button>
    </p>
  </section>
</template>
