<script setup lang="ts">
import { delimiters, encodings, subscribes, type Encoding } from '~~/core/people'

const route = useRoute()
const {
  known,
  name,
  hints,
  understood,
  plans,
  kinds,
  remembered,
  problem,
  reading,
  wishes,
  missing,
  asItStands,
  choose,
  hint,
  takeAnew,
  comeBack,
  retarget,
  change,
  count: countFirst,
} = usePeopleFile()
const { date } = useTimes()
const pasting = ref(false)
const pasted = ref('')
const dropping = ref(false)
const busy = ref(false)

/** The way back from what was counted. */
const again = Number(route.query.again)
if (again) void comeBack(again)

function chooseFile(chosen: File | undefined) {
  if (!chosen) return
  pasting.value = false
  choose(chosen, chosen.name)
}
const delimiterWords = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }
const asks = computed(() => subscribes(plans.value, wishes.value.listId))
const headerAsked = computed(
  () => understood.value?.table.row === 0 && hints.value.headerRow === undefined,
)
/** Rows that may be the header: the first that hold something. */
const headerRows = computed(() =>
  (understood.value?.firstRows ?? [])
    .map((cells, i) => ({
      row: i + 1,
      text: cells.filter((cell) => cell.trim() !== '').join(' · '),
    }))
    .filter(({ text }) => text !== '')
    .slice(0, 12),
)
const short = (text: string) => (text.length > 70 ? `${text.slice(0, 69)}…` : text)

async function start() {
  const goOn = wayOn()
  busy.value = true
  const id = await countFirst()
  busy.value = false
  if (id !== null) await goOn(`/people/imports/${id}`, 'What the import would do is counted.')
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
      @drop.prevent="((dropping = false), chooseFile($event.dataTransfer?.files[0]))"
    >
      <input
        type="file"
        class="sr-only"
        accept=".csv,.tsv,.txt,.xlsx,.vcf,text/csv,text/plain,text/vcard"
        aria-label="Choose a file"
        @change="chooseFile(($event.target as HTMLInputElement).files?.[0])"
      />
      <span class="btn">Choose a file</span
      ><span class="muted">{{ name || 'CSV, tab-separated, XLSX or vCard; or drop it here' }}</span>
      <span class="muted">·</span>
      <button type="button" class="btn" @click.prevent="pasting = !pasting">Paste people</button>
    </label>
    <form v-if="pasting" class="sheet mt-3 p-4" @submit.prevent="choose(pasted, 'pasted')">
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
          <span class="small muted flex items-center gap-2">
            {{
              understood.whole
                ? rows(understood.rows.length)
                : `the first ${count(understood.rows.length)} rows of the file`
            }}
            <template v-if="asItStands">
              ·
              <label
                >separated by
                <select
                  class="field field-sm ml-1 !inline-block !w-auto"
                  :value="understood.delimiter"
                  @change="hint({ delimiter: ($event.target as HTMLSelectElement).value })"
                >
                  <option v-for="one in delimiters" :key="one" :value="one">
                    {{ delimiterWords[one] }}
                  </option>
                </select></label
              >
              ·
              <label
                >encoding
                <select
                  class="field field-sm ml-1 !inline-block !w-auto"
                  :value="understood.encoding"
                  @change="
                    hint({ encoding: ($event.target as HTMLSelectElement).value as Encoding })
                  "
                >
                  <option v-for="one in encodings" :key="one" :value="one">{{ one }}</option>
                </select></label
              >
            </template></span
          >
        </div>
        <div
          v-if="headerAsked"
          class="mx-4 mt-3 rounded-md border border-brass-500 bg-brass-100 px-3 py-2"
          role="status"
        >
          The first row holds an address, so this file seems to have no header. Is “{{
            short(headerRows[0]?.text ?? '')
          }}” a person?
          <span class="mt-2 flex gap-2">
            <button type="button" class="btn btn-sm" @click="hint({ headerRow: 0 })">
              Yes, it has no header
            </button>
            <button
              type="button"
              class="btn btn-sm"
              @click="hint({ headerRow: understood.table.firstRow })"
            >
              No, that is the header
            </button>
          </span>
        </div>
        <div v-else class="flex flex-wrap items-center gap-x-3 gap-y-1 px-4 pt-3">
          <label class="flex items-center gap-2"
            ><span class="small muted">Header</span>
            <select
              class="field field-sm !w-auto max-w-[420px]"
              :value="understood.table.row"
              @change="hint({ headerRow: Number(($event.target as HTMLSelectElement).value) })"
            >
              <option v-for="one in headerRows" :key="one.row" :value="one.row">
                row {{ one.row }}: {{ short(one.text) }}
              </option>
              <option :value="0">none; the first row is a person</option>
            </select></label
          >
          <span v-if="understood.before.length" class="small muted"
            >Left out before it:
            {{
              understood.before
                .map(({ row, cells }) => `row ${row} “${short(cells.filter(Boolean).join(' · '))}”`)
                .join(', ')
            }}</span
          >
        </div>
        <p v-if="remembered !== null" class="notice mx-4 mt-3" role="status">
          Taken as the file with the same columns on {{ date(remembered) }}.
          <button type="button" class="link" @click="takeAnew">Understand it anew</button>
        </p>
        <ImportColumns
          class="mt-3"
          :plans="plans"
          :fields="known?.fields ?? []"
          :lists="known?.lists ?? []"
          :kinds="kinds"
          @target="retarget"
          @change="change"
        />
      </div>
      <div class="sheet mt-4 p-4">
        <h2>Which list they join</h2>
        <div class="mt-2 grid max-w-2xl grid-cols-[220px_1fr] gap-x-4 gap-y-2">
          <label for="list" class="self-center">Everybody in this file</label>
          <select id="list" v-model="wishes.listId" class="field">
            <option :value="null">no list, they are only on file</option>
            <option v-for="list in known?.lists" :key="list.id" :value="list.id">
              joins {{ list.name }}
            </option>
          </select>
          <template v-if="asks">
            <label for="statement" class="self-center">How they agreed to it</label>
            <input
              id="statement"
              v-model="wishes.statement"
              class="field"
              placeholder="Signed the sheet at the club stand, June 2026"
            />
            <span />
            <label class="flex items-start gap-2"
              ><input v-model="wishes.consented" type="checkbox" class="mt-1" />They asked for what
              this puts them on. What is written here is kept as evidence.</label
            >
          </template>
        </div>
        <h2 class="mt-4">What else</h2>
        <div class="mt-2 grid max-w-2xl grid-cols-[220px_1fr] gap-x-4 gap-y-2">
          <label for="mode" class="self-center">Who is written</label>
          <select id="mode" v-model="wishes.mode" class="field">
            <option value="both">new people are added, those on file updated</option>
            <option value="add">only new people are added</option>
            <option value="update">only those on file are updated</option>
          </select>
          <label for="empty" class="self-center">An empty cell</label>
          <select id="empty" v-model="wishes.clearEmpty" class="field">
            <option :value="false">leaves what is on file</option>
            <option :value="true">takes the value away</option>
          </select>
          <label for="repeats" class="self-center">Of rows with the same address</label>
          <select id="repeats" v-model="wishes.repeats" class="field">
            <option value="last">the last counts: it replaces what those before it say</option>
            <option value="first">the first counts, the others are left</option>
          </select>
          <label for="tag" class="self-center">Everybody in it gets the tag</label>
          <input id="tag" v-model="wishes.tag" class="field" maxlength="60" placeholder="no tag" />
        </div>
        <p class="muted small mt-3">
          A column of yes and no for a list decides for itself; who says no does not join. Somebody
          who has unsubscribed, or is suppressed, is never brought back by an import.
        </p>
        <div class="mt-4 flex items-center gap-3">
          <button class="btn btn-go" :disabled="busy || missing !== null" @click="start">
            {{
              busy
                ? 'Sending the file…'
                : understood.whole
                  ? `Count ${rows(understood.rows.length)} first`
                  : 'Count first'
            }}
          </button>
          <span v-if="missing" class="fault">{{ missing }}</span>
        </div>
      </div>
    </template>
  </div>
</template>
