<script setup lang="ts">
import type { ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'reads'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'reads'>] }>()
const { set, valueOf } = conditionChips<'reads'>(props, emit)
const devices = { phone: 'on a phone', tablet: 'on a tablet', computer: 'on a computer' }
const programs = { browser: 'in a browser', program: 'in a mail program' }
</script>

<template>
  <span class="chip chip-subject">Opened a mailing</span>
  <select
    class="chip"
    aria-label="On or in what"
    :value="condition.on"
    @change="set({ on: valueOf($event) })"
  >
    <optgroup label="Device">
      <option v-for="(words, on) in devices" :key="on" :value="on">{{ words }}</option>
    </optgroup>
    <optgroup label="Program">
      <option v-for="(words, on) in programs" :key="on" :value="on">{{ words }}</option>
    </optgroup>
  </select>
  <WithinChip :days="condition.withinDays" @change="(withinDays) => set({ withinDays })" />
</template>
