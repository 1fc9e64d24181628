<script setup lang="ts">
import type { TimeComparison } from '~~/core/segments'
import { withDay, type DayKind } from './day-kinds'

/** When: in the last or next days, before, after or on a day, from a day to a day; with `ever`, also at any time. */
const props = defineProps<{ when: TimeComparison | null; ever?: boolean }>()
const emit = defineEmits<{ change: [when: TimeComparison | null] }>()
const { today } = useToday()
const kinds = {
  'last-days': 'in the last',
  'next-days': 'in the next',
  before: 'before',
  after: 'after',
  on: 'on',
  'from-to': 'from',
}
function choose(is: string) {
  if (is === '') return emit('change', null)
  const { when } = props
  if (is === 'last-days' || is === 'next-days')
    return emit('change', { is, days: when && 'days' in when ? when.days : 30 })
  emit('change', withDay(is as DayKind, when, today()))
}
</script>

<template>
  <select
    class="chip"
    aria-label="When"
    :value="when?.is ?? ''"
    @change="choose(($event.target as HTMLSelectElement).value)"
  >
    <option v-if="ever" value="">at any time</option>
    <option v-for="(words, is) in kinds" :key="is" :value="is">{{ words }}</option>
  </select>
  <TimeValue v-if="when" :when="when" @change="emit('change', $event)" />
</template>
