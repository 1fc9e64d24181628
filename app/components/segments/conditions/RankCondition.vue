<script setup lang="ts">
import { rankedBy, type ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'rank'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'rank'>] }>()
const { set, valueOf } = conditionChips<'rank'>(props, emit)
const bys: Record<(typeof rankedBy)[number], string> = {
  money: 'money spent',
  orders: 'number of orders',
  engagement: 'engagement',
  joined: 'when they joined',
  'last-bought': 'when they last bought',
  'last-opened': 'when they last opened',
}
function setNumber(n: number) {
  const most = props.condition.unit === 'percent' ? 100 : 10_000_000
  if (n >= 1) set({ n: Math.min(most, Math.round(n)) })
}
function setUnit(unit: string) {
  set({ unit, n: unit === 'percent' ? 10 : 100 })
}
</script>

<template>
  <select
    class="chip chip-subject"
    aria-label="From which end"
    :value="condition.end"
    @change="set({ end: valueOf($event) })"
  >
    <option value="top">Top</option>
    <option value="bottom">Bottom</option>
  </select>
  <KeptInput
    class="chip w-20 text-right"
    type="number"
    min="1"
    aria-label="How many"
    :value="condition.n"
    @taken="setNumber(Number($event))"
  />
  <select
    class="chip"
    aria-label="People or per cent"
    :value="condition.unit"
    @change="setUnit(valueOf($event))"
  >
    <option value="percent">% of people</option>
    <option value="people">people</option>
  </select>
  <span>by</span>
  <select
    class="chip"
    aria-label="In order of"
    :value="condition.by"
    @change="set({ by: valueOf($event) })"
  >
    <option v-for="by in rankedBy" :key="by" :value="by">{{ bys[by] }}</option>
  </select>
  <span class="muted" title="Of those who have any at all. Who ties with the last is in, too.">
    ties are in
  </span>
</template>
