<script setup lang="ts">
/** Within the last so many days, or at any time. */
const props = defineProps<{ days: number | null }>()
const emit = defineEmits<{ change: [days: number | null] }>()
function set(text: string) {
  const days = Math.round(Number(text))
  if (days >= 1 && days <= 36_500) emit('change', days)
}
</script>

<template>
  <select
    class="chip"
    aria-label="Within"
    :value="props.days === null ? 'ever' : 'within'"
    @change="emit('change', ($event.target as HTMLSelectElement).value === 'ever' ? null : 90)"
  >
    <option value="ever">at any time</option>
    <option value="within">in the last</option>
  </select>
  <template v-if="props.days !== null">
    <input
      class="chip w-16 text-right"
      type="number"
      min="1"
      max="36500"
      aria-label="Days"
      :value="props.days"
      @change="set(($event.target as HTMLInputElement).value)"
    />
    <span>{{ props.days === 1 ? 'day' : 'days' }}</span>
  </template>
</template>
