<script setup lang="ts">
import type {
  ColumnPlan,
  ColumnTarget,
  Field,
  FileProblem,
  FileUnderstanding,
} from '~~/core/people'
import UnderstandFile from '~/workers/understand-file.worker?worker'

interface Known {
  fields: Field[]
  lists: { id: number; name: string }[]
}
const { answer: overview } = useAnswer<Known>(() => '/api/people/overview', { live: false })
const file = shallowRef<File | null>(null)
const understood = shallowRef<FileUnderstanding | null>(null)
const plans = ref<ColumnPlan[]>([])
const problem = ref('')
const reading = ref(false)
const busy = ref(false)
const listId = ref<number | null>(null)
const consented = ref(false)
const statement = ref('')
const dropping = ref(false)
const mode = ref<'both' | 'add' | 'update'>('both')
const clearEmpty = ref(false)
const tag = ref('')
const { today } = useToday()

async function choose(chosen: File | undefined) {
  if (!chosen) return
  file.value = chosen
  understood.value = null
  problem.value = ''
  reading.value = true
  // A file may be chosen before it is known which fields and lists there are.
  const known = overview.value ?? (await ask<Known>('/api/people/overview'))
  if (!known) return void (reading.value = false)
  const worker = new UnderstandFile()
  const finish = (message: string, found: FileUnderstanding | null = null) => {
    worker.terminate()
    reading.value = false
    problem.value = message
    understood.value = found
    tag.value = `${chosen.name.replace(/\.\w+$/, '')} ${today()}`.slice(0, 60)
    plans.value = found?.plans ?? []
  }
  worker.onmessage = (answer: MessageEvent<FileUnderstanding | FileProblem>) =>
    'message' in answer.data ? finish(answer.data.message) : finish('', answer.data)
  worker.onerror = () => finish('This file could not be read. Choose it again.')
  worker.postMessage({
    file: chosen,
    known: {
      fields: known.fields.map((field) => ({ ...field })),
      lists: known.lists.map(({ id, name }) => ({ id, name })),
    },
  })
}
function change(column: number, target: ColumnTarget) {
  plans.value = plans.value.map((plan) => {
    if (plan.column === column) return { ...plan, target }
    // There is one address column: choosing another leaves the first aside.
    return target.to === 'address' && plan.target.to === 'address'
      ? { ...plan, target: { to: 'skip' } }
      : plan
  })
}
const hasAddress = computed(() => plans.value.some((plan) => plan.target.to === 'address'))
async function start() {
  if (!file.value || !understood.value) return
  if (listId.value !== null && (!consented.value || statement.value.trim() === '')) {
    problem.value = 'Say how these people agreed to get this list, and tick the box.'
    return
  }
  busy.value = true
  problem.value = ''
  const taken = await ask<{ file: string }>('/api/imports/file', {
    method: 'POST',
    body: file.value,
  })
  const made =
    taken &&
    (await ask<{ id: number }>('/api/imports', {
      method: 'POST',
      body: {
        file: taken.file,
        name: file.value.name,
        encoding: understood.value.encoding,
        delimiter: understood.value.delimiter,
        plans: plans.value,
        listId: listId.value,
        statement: statement.value,
        consented: consented.value,
        mode: mode.value,
        clearEmpty: clearEmpty.value,
        tag: tag.value.trim() || null,
        preview: true,
      },
    }))
  busy.value = false
  if (made) await navigateTo(`/people/imports/${made.id}`)
}
</script>

<template>
  <div>
    <h1>Import people</h1>
    <p class="muted mt-0.5">
      From a file with a header line and a row for each person. Nothing is written before you have
      seen what would happen.
    </p>
    <label
      class="sheet mt-4 flex cursor-pointer items-center justify-center gap-3 border-dashed p-5 focus-within:border-brass-500"
      :class="dropping && 'border-brass-500 bg-brass-100'"
      @dragover.prevent="dropping = true"
      @dragleave="dropping = false"
      @drop.prevent="((dropping = false), choose($event.dataTransfer?.files[0]))"
    >
      <input
        type="file"
        class="sr-only"
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        aria-label="Choose a file"
        @change="choose(($event.target as HTMLInputElement).files?.[0])"
      />
      <span class="btn">Choose a file</span
      ><span class="muted">{{ file ? file.name : 'CSV or tab-separated; or drop it here' }}</span>
    </label>
    <p v-if="reading" class="muted mt-3" role="status">Reading the file…</p>
    <p v-if="problem" class="fault mt-3" role="alert">{{ problem }}</p>
    <template v-if="understood">
      <div class="sheet mt-4">
        <div class="sheet-head">
          <h2>How the columns were understood</h2>
          <span class="small muted"
            >{{
              understood.whole
                ? rows(understood.rows.length)
                : `the first ${count(understood.rows.length)} rows of ${(file!.size / 1e6).toFixed(1)} MB`
            }}
            · {{ understood.encoding }} · separated by
            {{
              { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }[understood.delimiter]
            }}</span
          >
        </div>
        <ImportColumns
          :plans="plans"
          :fields="overview?.fields ?? []"
          :lists="overview?.lists ?? []"
          @change="change"
        />
      </div>
      <div class="sheet mt-4 p-4">
        <h2>Which list they join</h2>
        <div class="mt-2 grid max-w-2xl grid-cols-[220px_1fr] gap-x-4 gap-y-2">
          <label for="list" class="self-center">Everybody in this file</label>
          <select id="list" v-model="listId" class="field">
            <option :value="null">no list, they are only on file</option>
            <option v-for="list in overview?.lists" :key="list.id" :value="list.id">
              joins {{ list.name }}
            </option>
          </select>
          <template v-if="listId !== null">
            <label for="statement" class="self-center">How they agreed to it</label>
            <input
              id="statement"
              v-model="statement"
              class="field"
              placeholder="Signed the sheet at the club stand, June 2026"
            />
            <span />
            <label class="flex items-start gap-2"
              ><input v-model="consented" type="checkbox" class="mt-1" />They asked for this list.
              What is written here is kept as evidence.</label
            >
          </template>
        </div>
        <h2 class="mt-4">What else</h2>
        <div class="mt-2 grid max-w-2xl grid-cols-[220px_1fr] gap-x-4 gap-y-2">
          <label for="mode" class="self-center">Who is written</label>
          <select id="mode" v-model="mode" class="field">
            <option value="both">new people are added, those on file updated</option>
            <option value="add">only new people are added</option>
            <option value="update">only those on file are updated</option>
          </select>
          <label for="empty" class="self-center">An empty cell</label>
          <select id="empty" v-model="clearEmpty" class="field">
            <option :value="false">leaves what is on file</option>
            <option :value="true">takes the value away</option>
          </select>
          <label for="tag" class="self-center">Everybody in it gets the tag</label>
          <input id="tag" v-model="tag" class="field" maxlength="60" placeholder="no tag" />
        </div>
        <p class="muted small mt-3">
          A column of yes and no for a list decides for itself; who says no does not join. Somebody
          who has left a list, or is set aside, is never brought back by an import.
        </p>
        <div class="mt-4 flex items-center gap-3">
          <button class="btn btn-go" :disabled="busy || !hasAddress" @click="start">
            {{
              busy
                ? 'Sending the file…'
                : understood.whole
                  ? `Count ${rows(understood.rows.length)} first`
                  : 'Count first'
            }}
          </button>
          <span v-if="!hasAddress" class="fault">One column must be the address.</span>
        </div>
      </div>
    </template>
  </div>
</template>
