<script setup lang="ts">
import { MOST_DAYS } from '~~/core/segments'

/** A number of days; what is no such number is not taken. */
defineProps<{ days: number }>()
const emit = defineEmits<{ change: [days: number] }>()
function set(text: string) {
  const days = Math.round(Number(text))
  if (days >= 1 && days <= MOST_DAYS) emit('change', days)
}
</script>

<template>
  <KeptInput
    class="chip w-16 text-right"
    type="number"
    min="1"
    :max="MOST_DAYS"
    aria-label="Days"
    :value="days"
    @taken="set($event)"
  />
  <span>{{ days === 1 ? 'day' : 'days' }}</span>
</template>
