<script setup lang="ts">
import type { Rule } from '~~/core/segments'

/** Segments to begin from, made of the account's own data. */
const store = useSegment()
const { answer, problem } = useAnswer<{ name: string; about: string; rule: Rule; n: number }[]>(
  () => '/api/segments/starts',
  { live: false },
)
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
    <p v-if="!answer && !problem" class="muted mt-2">Counting…</p>
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
        <span class="num">{{ count(start.n) }}</span>
      </button>
    </div>
  </section>
</template>
