<script setup lang="ts">
import type { ReaderLanguage, ReaderWords } from '~~/core/readers'

interface Word {
  name: keyof ReaderWords
  /** What is said where the account says nothing else. */
  ships: string
  /** What the account says instead; empty: what ships. */
  text: string
  places: string[]
  version: string
}
const props = defineProps<{ language: ReaderLanguage }>()
const path = `/api/reader-words/${props.language}`
const {
  rows: words,
  problem: silence,
  keeperFor,
  change,
} = useKeptRows<Word, { text: string }>({
  path,
  key: ({ name }) => name,
  value: ({ text }) => ({ text }),
  names: { text: 'What readers are told' },
})
const placesOf = ({ places }: Word) => places.map((place) => `{${place}}`).join(', ')
const page = useAnswer<{ html: string }>(() => `${path}/page`)
const notices = useNotices()
const wanted = ref('')
const shown = computed(() => {
  const look = wanted.value.trim().toLowerCase()
  return (words.value ?? []).filter(({ ships, text }) =>
    `${ships} ${text}`.toLowerCase().includes(look),
  )
})
const changed = computed(() => (words.value ?? []).filter(({ text }) => text).length)
async function save(word: Word, text: string) {
  const before = word.text
  if (!(await change(word, { text: text.trim() }))) return
  await page.reload()
  notices.say('Readers are told so from now on. Letters that have not gone out follow.', {
    label: 'Undo',
    run: () => void save({ ...word, text: text.trim() }, before),
  })
}
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)_430px] items-start gap-4">
    <section class="sheet" aria-label="What readers are told">
      <div class="sheet-head">
        <input
          v-model="wanted"
          class="field field-sm !w-64"
          type="search"
          aria-label="Find a text"
          placeholder="Find a text"
        />
        <span v-if="words" class="muted small"
          >{{ several(words.length, 'text', 'texts') }},
          {{ changed ? `${count(changed)} changed` : 'none changed' }}</span
        >
      </div>
      <p v-if="silence && !words" class="fault p-4" role="alert">{{ silence }}</p>
      <p v-if="words && !shown.length" class="muted p-4">No text has these words.</p>
      <div
        v-for="word in shown"
        :key="word.name"
        class="border-t border-line-soft px-3.5 py-2 first:border-0"
      >
        <KeptInput
          class="field placeholder:text-ink-700"
          :lang="language"
          :aria-label="word.ships"
          :value="word.text"
          :placeholder="word.ships"
          :title="word.ships"
          maxlength="500"
          @taken="save(word, $event)"
        />
        <p v-if="word.places.length || word.text" class="muted small mt-1 flex justify-between">
          <span>
            <template v-if="word.places.length">Filled in: {{ placesOf(word) }}</template>
          </span>
          <button v-if="word.text" type="button" class="link" @click="save(word, '')">
            Reset<span class="sr-only"> {{ word.ships }}</span>
          </button>
        </p>
        <KeptState :keeper="keeperFor(word)" />
      </div>
    </section>
    <section class="sheet sticky top-3" aria-label="The reader’s page">
      <div class="sheet-head">
        <h2>The reader’s page</h2>
        <span class="muted small">for nobody in particular</span>
      </div>
      <p v-if="page.problem.value" class="fault p-3.5" role="alert">{{ page.problem.value }}</p>
      <iframe
        v-else-if="page.answer.value"
        class="block h-[620px] w-full"
        sandbox=""
        title="The reader’s page"
        :srcdoc="framed(page.answer.value.html)"
      />
    </section>
  </div>
</template>
