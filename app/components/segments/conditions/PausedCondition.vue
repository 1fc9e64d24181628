<script setup lang="ts">
import type { ConditionOf, TimeComparison } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'paused'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'paused'>] }>()
const { set } = conditionChips<'paused'>(props, emit)
</script>

<template>
  <span class="chip chip-subject">Paused their mail</span>
  <TimeChips
    ever
    :when="condition.since"
    @change="(since: TimeComparison | null) => set({ since })"
  />
</template>
