<script setup lang="ts">
import type { ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'ordered'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'ordered'>] }>()
const { set, valueOf } = conditionChips<'ordered'>(props, emit)
</script>

<template>
  <select
    class="chip chip-subject"
    aria-label="First or last"
    :value="condition.which"
    @change="set({ which: valueOf($event) })"
  >
    <option value="last">Last bought</option>
    <option value="first">First bought</option>
  </select>
  <TimeChips :when="condition.when" @change="(when) => set({ when })" />
</template>
