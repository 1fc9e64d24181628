<script setup lang="ts">
import { sequenceTemplates } from '~~/core/sequences/templates'

/** What an empty sequence can be begun from; each is an ordinary map, whose letters are written. */
const store = useSequence()
const busy = ref<string | null>(null)
async function begin(key: string) {
  busy.value = key
  await store.beginFrom(key)
  busy.value = null
}
</script>

<template>
  <section aria-label="Begin from" class="mx-auto w-full max-w-[680px] px-4 pb-16">
    <h2>Or begin from one that is drawn</h2>
    <p class="muted small mt-1">
      Its letters are written, but for what stands in square brackets. Everything can be changed,
      and undone.
    </p>
    <ul class="mt-3 grid grid-cols-2 gap-2">
      <li v-for="one in sequenceTemplates" :key="one.key">
        <button
          type="button"
          class="sheet flex h-full w-full flex-col px-3 py-2 text-left hover:border-ink-300"
          :disabled="busy !== null"
          @click="begin(one.key)"
        >
          <b class="block font-semibold">{{ one.name }}</b>
          <span class="muted small block">{{ one.about }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>
