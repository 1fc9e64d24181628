<script setup lang="ts">
import type { TimeComparison } from '~~/core/segments'

/** The days or the day of a comparison with a time. */
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
  <DaysInput
    v-else
    :days="when.days"
    @change="(days) => emit('change', { ...when, days } as TimeComparison)"
  />
</template>
