<script setup lang="ts">
/** Within the last so many days, or at any time. */
defineProps<{ days: number | null }>()
const emit = defineEmits<{ change: [days: number | null] }>()
</script>

<template>
  <select
    class="chip"
    aria-label="Within"
    :value="days === null ? 'ever' : 'within'"
    @change="emit('change', ($event.target as HTMLSelectElement).value === 'ever' ? null : 90)"
  >
    <option value="ever">at any time</option>
    <option value="within">in the last</option>
  </select>
  <DaysInput v-if="days !== null" :days="days" @change="(days) => emit('change', days)" />
</template>
