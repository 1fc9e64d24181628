<script setup lang="ts">
import type { ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'event'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'event'>] }>()
const { set, valueOf, vocabulary } = conditionChips<'event'>(props, emit)
</script>

<template>
  <span class="chip chip-subject">Did</span>
  <select
    class="chip"
    aria-label="Event"
    :value="condition.name"
    @change="set({ name: valueOf($event) })"
  >
    <option v-if="!vocabulary.events.includes(condition.name)" :value="condition.name">
      {{ condition.name }}
    </option>
    <option v-for="name in vocabulary.events" :key="name" :value="name">{{ name }}</option>
  </select>
  <TimesChips :times="condition.times" @change="(times) => set({ times })" />
  <WithinChip :days="condition.withinDays" @change="(withinDays) => set({ withinDays })" />
  <EventWhere :where="condition.where" @change="(where) => set({ where })" />
</template>
