<script setup lang="ts">
import type { TimeComparison } from '~~/core/segments'

/** The days or the day of a comparison with a time. */
const props = defineProps<{ when: TimeComparison }>()
const emit = defineEmits<{ change: [when: TimeComparison] }>()
function set(text: string) {
  if ('day' in props.when) {
    if (text) emit('change', { ...props.when, day: text })
    return
  }
  const days = Math.round(Number(text))
  if (days >= 1 && days <= 36_500) emit('change', { ...props.when, days })
}
</script>

<template>
  <input
    v-if="'day' in when"
    class="chip"
    type="date"
    aria-label="Day"
    :value="when.day"
    @change="set(($event.target as HTMLInputElement).value)"
  />
  <template v-else>
    <input
      class="chip w-16 text-right"
      type="number"
      min="1"
      max="36500"
      aria-label="Days"
      :value="when.days"
      @change="set(($event.target as HTMLInputElement).value)"
    />
    <span>{{ when.days === 1 ? 'day' : 'days' }}</span>
  </template>
</template>
