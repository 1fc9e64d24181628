<script setup lang="ts">
import type { TimeComparison } from '~~/core/segments'

/** The days of a comparison with a time: how many, which one, or from which to which. */
defineProps<{ when: TimeComparison }>()
const emit = defineEmits<{ change: [when: TimeComparison] }>()
</script>

<template>
  <DateField
    v-if="'day' in when"
    class="chip"
    aria-label="Day"
    :model-value="when.day"
    @taken="
      (day) => {
        if (day) emit('change', { ...when, day } as TimeComparison)
      }
    "
  />
  <template v-else-if="when.is === 'from-to'">
    <DateField
      class="chip"
      aria-label="From day"
      :model-value="when.from"
      @taken="
        (from) => {
          if (from) emit('change', { ...when, from } as TimeComparison)
        }
      "
    />
    <span>to</span>
    <DateField
      class="chip"
      aria-label="To day"
      :model-value="when.to"
      @taken="
        (to) => {
          if (to) emit('change', { ...when, to } as TimeComparison)
        }
      "
    />
  </template>
  <DaysInput
    v-else
    :days="when.days"
    @change="(days) => emit('change', { ...when, days } as TimeComparison)"
  />
</template>
