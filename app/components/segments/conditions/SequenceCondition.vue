<script setup lang="ts">
import type { ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'sequence'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'sequence'>] }>()
const { set, valueOf, vocabulary } = conditionChips<'sequence'>(props, emit)
const standings = {
  inside: 'Inside sequence',
  finished: 'Finished sequence',
  never: 'Never in sequence',
}
</script>

<template>
  <select
    class="chip chip-subject"
    aria-label="Standing in it"
    :value="condition.is"
    @change="set({ is: valueOf($event) })"
  >
    <option v-for="(words, is) in standings" :key="is" :value="is">{{ words }}</option>
  </select>
  <select
    class="chip"
    aria-label="Sequence"
    :value="condition.sequenceId"
    @change="set({ sequenceId: Number(valueOf($event)) })"
  >
    <option v-for="one in vocabulary.sequences" :key="one.id" :value="one.id">
      {{ one.name }}
    </option>
  </select>
</template>
