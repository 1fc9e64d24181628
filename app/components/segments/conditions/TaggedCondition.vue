<script setup lang="ts">
import type { ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'tagged'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'tagged'>] }>()
const { set, valueOf, vocabulary } = conditionChips<'tagged'>(props, emit)
const gone = computed(() =>
  vocabulary.value.goneTags.find(({ id }) => id === props.condition.tagId),
)
</script>

<template>
  <span class="chip chip-subject">Tagged</span>
  <select
    class="chip"
    aria-label="Tag"
    :value="condition.tagId"
    @change="set({ tagId: Number(valueOf($event)) })"
  >
    <option v-if="gone" :value="gone.id">{{ gone.name }} (deleted)</option>
    <option v-for="tag in vocabulary.tags" :key="tag.id" :value="tag.id">{{ tag.name }}</option>
  </select>
</template>
