<script setup lang="ts">
import type { ConditionOf, TimeComparison } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'suppressed'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'suppressed'>] }>()
const { set, valueOf } = conditionChips<'suppressed'>(props, emit)
const reasons = { bounced: 'as bounced', complained: 'as complained', 'by-hand': 'by hand' }
</script>

<template>
  <span class="chip chip-subject">Suppressed</span>
  <select
    class="chip"
    aria-label="Why"
    :value="condition.reason ?? ''"
    @change="set({ reason: valueOf($event) || null })"
  >
    <option value="">for any reason</option>
    <option v-for="(words, reason) in reasons" :key="reason" :value="reason">{{ words }}</option>
  </select>
  <TimeChips
    ever
    :when="condition.since"
    @change="(since: TimeComparison | null) => set({ since })"
  />
</template>
