<script setup lang="ts">
import type { ConditionOf, TimeComparison } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'on-list'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'on-list'>] }>()
const { set, valueOf, vocabulary } = conditionChips<'on-list'>(props, emit)
const states = {
  subscribed: 'On list',
  pending: 'Pending on list',
  unsubscribed: 'Unsubscribed from list',
}
</script>

<template>
  <select
    class="chip chip-subject"
    aria-label="Standing"
    :value="condition.state"
    @change="set({ state: valueOf($event) })"
  >
    <option v-for="(words, state) in states" :key="state" :value="state">{{ words }}</option>
  </select>
  <select
    class="chip"
    aria-label="List"
    :value="condition.listId"
    @change="set({ listId: Number(valueOf($event)) })"
  >
    <option v-for="list in vocabulary.lists" :key="list.id" :value="list.id">
      {{ list.name }}
    </option>
  </select>
  <TimeChips
    ever
    :when="condition.since"
    @change="(since: TimeComparison | null) => set({ since })"
  />
  <span v-if="condition.way" class="chip chip-subject">by {{ condition.way }}</span>
</template>
