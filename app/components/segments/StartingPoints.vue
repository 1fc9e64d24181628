<script setup lang="ts">
import { STARTS_AT_A_TIME, type Rule } from '~~/core/segments'

/** Segments to begin from, made of the account's own data. Each can be taken before its people are counted. */
interface Start {
  name: string
  about: string
  rule: Rule
}
const store = useSegment()
const { answer, problem } = useAnswer<Start[]>(() => '/api/segments/starts', { live: false })
/** How many people each keeps, by its name, as they come; null where it could not be counted. */
const counts = ref<Record<string, number | null>>({})
let gone = false
onScopeDispose(() => (gone = true))
watch(answer, async (starts) => {
  for (let from = 0; starts && from < starts.length && !gone; from += STARTS_AT_A_TIME) {
    const some = starts.slice(from, from + STARTS_AT_A_TIME)
    const rules = some.map(({ rule }) => rule)
    const found = await question<number[]>('/api/segments/counts', { rules }).catch(() => null)
    some.forEach(({ name }, i) => (counts.value[name] = found?.[i] ?? null))
  }
})
function begin(start: { name: string; rule: Rule }) {
  if (!store.name.trim()) store.name = start.name
  store.change(start.rule)
}
</script>

<template>
  <section aria-labelledby="starts-title">
    <h2 id="starts-title">Or begin with one of these</h2>
    <p class="muted">Each opens as ordinary rules, to be changed.</p>
    <p v-if="problem" class="fault mt-2" role="alert">{{ problem }}</p>
    <p v-if="!answer && !problem" class="muted mt-2">Looking at what is on file…</p>
    <div class="mt-3 grid grid-cols-3 gap-2">
      <button
        v-for="start in answer"
        :key="start.name"
        type="button"
        class="sheet flex items-start justify-between gap-3 px-3 py-2 text-left hover:border-ink-300"
        @click="begin(start)"
      >
        <span
          ><span class="block font-semibold">{{ start.name }}</span
          ><span class="muted small">{{ start.about }}</span></span
        >
        <span v-if="counts[start.name] === undefined" class="muted small">counting…</span>
        <span v-else-if="counts[start.name] === null" class="muted small">not counted</span>
        <span v-else class="num">{{ count(counts[start.name]!) }}</span>
      </button>
    </div>
  </section>
</template>
