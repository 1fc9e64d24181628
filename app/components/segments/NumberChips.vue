<script setup lang="ts">
import type { NumberComparison } from '~~/core/segments'

/** A number compared. `digits`: how many of them stand after the point (money is in minor units). */
const props = withDefaults(defineProps<{ test: NumberComparison; digits?: number }>(), {
  digits: 0,
})
const emit = defineEmits<{ change: [test: NumberComparison] }>()
const kinds = {
  'at-least': 'at least',
  'at-most': 'at most',
  over: 'over',
  under: 'under',
  equal: 'exactly',
  'not-equal': 'not',
  between: 'between',
}
const is = computed(() => (props.test.is === 'between' ? 'between' : props.test.than))
const factor = computed(() => 10 ** props.digits)
function choose(to: string) {
  const from = props.test.is === 'between' ? props.test.from : props.test.number
  emit(
    'change',
    to === 'between'
      ? { is: 'between', from, to: Math.max(from, from + factor.value) }
      : { is: 'number', than: to as 'over', number: from },
  )
}
function set(part: 'number' | 'from' | 'to', text: string) {
  const number = Number(text)
  if (text === '' || !Number.isFinite(number)) return
  const value = props.digits ? Math.round(number * factor.value) : number
  emit('change', { ...props.test, [part]: value } as NumberComparison)
}
</script>

<template>
  <select
    class="chip"
    aria-label="Compared"
    :value="is"
    @change="choose(($event.target as HTMLSelectElement).value)"
  >
    <option v-for="(words, key) in kinds" :key="key" :value="key">{{ words }}</option>
  </select>
  <template v-if="test.is === 'between'">
    <KeptInput
      class="chip w-20 text-right"
      type="number"
      step="any"
      aria-label="From"
      :value="test.from / factor"
      @taken="set('from', $event)"
    />
    <span>and</span>
    <KeptInput
      class="chip w-20 text-right"
      type="number"
      step="any"
      aria-label="To"
      :value="test.to / factor"
      @taken="set('to', $event)"
    />
  </template>
  <KeptInput
    v-else
    class="chip w-20 text-right"
    type="number"
    step="any"
    aria-label="Number"
    :value="test.number / factor"
    @taken="set('number', $event)"
  />
</template>
