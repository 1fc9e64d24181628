<script setup lang="ts">
import type { Times } from '~~/core/segments'

/** How many times: at least, at most, exactly; with `of`, how many of so many mailings, all of them or none. */
const props = defineProps<{ times: Times; of?: number }>()
const emit = defineEmits<{ change: [times: Times] }>()
const numbered = { 'at-least': 'at least', 'at-most': 'at most', exactly: 'exactly' }
const kinds = computed<Record<string, string>>(() =>
  props.of === undefined ? numbered : { all: 'all of', none: 'none of', ...numbered },
)
const is = computed(() => {
  const { times, of } = props
  if (of === undefined) return times.is
  if (times.is === 'at-least' && times.n === of) return 'all'
  return times.is === 'at-most' && times.n === 0 ? 'none' : times.is
})
function choose(to: string) {
  const { times, of = 1 } = props
  if (to === 'all') return emit('change', { is: 'at-least', n: of })
  if (to === 'none') return emit('change', { is: 'at-most', n: 0 })
  // One that says something else than all and none, and no more than there are.
  const n = is.value === 'all' || is.value === 'none' ? 1 : times.n
  emit('change', { is: to as Times['is'], n })
}
function set(text: string) {
  const n = Math.round(Number(text))
  if (text !== '' && n >= 0 && n <= 1_000_000) emit('change', { ...props.times, n })
}
</script>

<template>
  <select
    class="chip"
    aria-label="How often"
    :value="is"
    @change="choose(($event.target as HTMLSelectElement).value)"
  >
    <option v-for="(words, key) in kinds" :key="key" :value="key">{{ words }}</option>
  </select>
  <KeptInput
    v-if="is !== 'all' && is !== 'none'"
    class="chip w-14 text-right"
    type="number"
    min="0"
    aria-label="Times"
    :value="times.n"
    @taken="set($event)"
  />
  <span v-if="of === undefined">{{ times.n === 1 ? 'time' : 'times' }}</span>
  <span v-else-if="is !== 'all' && is !== 'none'">of</span>
</template>
