<script setup lang="ts">
import type { Times } from '~~/core/segments'

/** How many times: at least, at most, exactly. */
const props = defineProps<{ times: Times }>()
const emit = defineEmits<{ change: [times: Times] }>()
const kinds = { 'at-least': 'at least', 'at-most': 'at most', exactly: 'exactly' }
function set(text: string) {
  const n = Math.round(Number(text))
  if (text !== '' && n >= 0 && n <= 1_000_000) emit('change', { ...props.times, n })
}
</script>

<template>
  <select
    class="chip"
    aria-label="How often"
    :value="times.is"
    @change="
      emit('change', { ...times, is: ($event.target as HTMLSelectElement).value as Times['is'] })
    "
  >
    <option v-for="(words, is) in kinds" :key="is" :value="is">{{ words }}</option>
  </select>
  <KeptInput
    class="chip w-14 text-right"
    type="number"
    min="0"
    aria-label="Times"
    :value="times.n"
    @taken="set($event)"
  />
  <span>{{ times.n === 1 ? 'time' : 'times' }}</span>
</template>
