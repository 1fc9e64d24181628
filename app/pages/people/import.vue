<script setup lang="ts">
import {
  encodings,
  type ColumnPlan,
  type ColumnTarget,
  type Encoding,
  type Field,
  type FileUnderstanding,
} from '~~/core/people'
import UnderstandFile from '~/workers/understand-file.worker?worker'
import type { UnderstandingAnswer, UnderstandingAsked } from '~/workers/understand-file.worker'

interface RememberedMapping {
  plans: ColumnPlan[]
  choices: { mode: 'both' | 'add' | 'update'; clearEmpty: boolean }
  usedAt: number
}

interface Known {
  fields: Field[]
  lists: { id: number; name: string }[]
}
const { answer: overview } = useAnswer<Known>(() => '/api/people/overview', { live: false })
/** What was chosen, and what is sent: a workbook, vCards and pasted people go on as CSV. */
const chosenFile = shallowRef<File | null>(null)
const file = shallowRef<File | null>(null)
const turned = ref(false)
const pasting = ref(false)
const pasted = ref('')
const remembered = ref<number | null>(null)
const { date } = useTimes()
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

/** Understands a chosen file, or what was pasted, and takes it as the last one with the same columns. */
async function understand(source: File | string, as: Encoding | null = null) {
  understood.value = null
  problem.value = ''
  reading.value = true
  // A file may be chosen before it is known which fields and lists there are.
  const known = overview.value ?? (await ask<Known>('/api/people/overview'))
  if (!known) return void (reading.value = false)
  const worker = new UnderstandFile()
  const question: UnderstandingAsked = {
    source,
    encoding: as,
    known: {
      fields: known.fields.map((field) => ({ ...field })),
      lists: known.lists.map(({ id, name }) => ({ id, name })),
    },
  }
  worker.onmessage = async ({ data }: MessageEvent<UnderstandingAnswer>) => {
    worker.terminate()
    reading.value = false
    if ('message' in data.found) return void (problem.value = data.found.message)
    const name = typeof source === 'string' ? 'pasted' : source.name.replace(/\.\w+$/, '')
    file.value = data.csv ? new File([data.csv], `${name}.csv`) : (source as File)
    turned.value = data.csv !== null
    understood.value = data.found
    plans.value = data.found.plans
    tag.value = `${name} ${today()}`.slice(0, 60)
    await takeAsBefore()
  }
  worker.onerror = () => {
    worker.terminate()
    reading.value = false
    problem.value = 'This file could not be read. Choose it again.'
  }
  worker.postMessage(question)
}
function choose(chosen: File | undefined) {
  if (!chosen) return
  chosenFile.value = chosen
  pasting.value = false
  void understand(chosen)
}

/** Takes the columns as they were taken the last time, where there was one with just these. */
async function takeAsBefore() {
  const { header, plans: anew } = understood.value!
  const before = await orNotice(
    question<{ mapping: RememberedMapping | null }>('/api/imports/mapping', { header }),
  )
  remembered.value = before?.mapping?.usedAt ?? null
  if (!before?.mapping) return
  const { plans: then, choices } = before.mapping
  plans.value = anew.map((plan) => {
    const same = then.find(({ column }) => column === plan.column)
    return same ? { ...same, samples: plan.samples } : plan
  })
  mode.value = choices.mode
  clearEmpty.value = choices.clearEmpty
}
function takeAnew() {
  plans.value = understood.value!.plans
  remembered.value = null
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
  const taken = await act<{ file: string }>('/api/imports/file', 'POST', file.value)
  const made =
    taken &&
    (await act<{ id: number }>('/api/imports', 'POST', {
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
    }))
  busy.value = false
  if (made) await navigateTo(`/people/imports/${made.id}`)
}
</script>

<template>
  <div>
    <h1>Import people</h1>
    <p class="muted mt-0.5">
      From a file with a header line and a row for each person, a workbook, vCards, or pasted from
      an address book. Nothing is written before you have seen what would happen.
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
        accept=".csv,.tsv,.txt,.xlsx,.vcf,text/csv,text/plain,text/vcard"
        aria-label="Choose a file"
        @change="choose(($event.target as HTMLInputElement).files?.[0])"
      />
      <span class="btn">Choose a file</span
      ><span class="muted">{{
        chosenFile?.name ?? 'CSV, tab-separated, XLSX or vCard; or drop it here'
      }}</span>
      <span class="muted">·</span>
      <button type="button" class="btn" @click.prevent="pasting = !pasting">Paste people</button>
    </label>
    <form v-if="pasting" class="sheet mt-3 p-4" @submit.prevent="understand(pasted)">
      <label for="pasted"
        >Addresses and names, one a line or apart by commas; or rows of a table</label
      >
      <textarea
        id="pasted"
        v-model="pasted"
        class="field mt-1"
        rows="6"
        spellcheck="false"
        placeholder="Tove Wetherlam <tove@inkpost.example>"
      />
      <button class="btn btn-go mt-2" :disabled="!pasted.trim()">Read what is pasted</button>
    </form>
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
            <template v-if="!turned">
              · separated by
              {{
                { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }[
                  understood.delimiter
                ]
              }}
              ·
              <label
                >encoding
                <select
                  class="field field-sm ml-1 !inline-block !w-auto"
                  :value="understood.encoding"
                  @change="
                    understand(chosenFile!, ($event.target as HTMLSelectElement).value as Encoding)
                  "
                >
                  <option v-for="one in encodings" :key="one" :value="one">{{ one }}</option>
                </select></label
              >
            </template></span
          >
        </div>
        <p v-if="remembered !== null" class="notice mx-4 mt-3" role="status">
          Taken as the file with the same columns on {{ date(remembered) }}.
          <button type="button" class="link" @click="takeAnew">Understand it anew</button>
        </p>
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
          who has unsubscribed, or is suppressed, is never brought back by an import.
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
