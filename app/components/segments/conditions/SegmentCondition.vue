<script setup lang="ts">
import type { ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'segment'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'segment'>] }>()
const { set, valueOf, vocabulary } = conditionChips<'segment'>(props, emit)
const own = computed(() => useSegment().saved?.id)
</script>

<template>
  <span class="chip chip-subject">In segment</span>
  <select
    class="chip"
    aria-label="Segment"
    :value="condition.segmentId"
    @change="set({ segmentId: Number(valueOf($event)) })"
  >
    <option
      v-for="one in vocabulary.segments.filter(({ id }) => id !== own)"
      :key="one.id"
      :value="one.id"
    >
      {{ one.name }}
    </option>
  </select>
</template>
