<script setup lang="ts">
/** An hour of the account's clock, or of theirs. */
defineProps<{ hour: number; theirs?: boolean }>()
const emit = defineEmits<{ change: [hour: number] }>()
const clock = (hour: number) => `${String(hour).padStart(2, '0')}:00`
</script>

<template>
  <div class="flex items-center gap-2">
    at
    <select
      class="field field-sm !w-auto"
      aria-label="Hour"
      :value="hour"
      @change="emit('change', Number(($event.target as HTMLSelectElement).value))"
    >
      <option v-for="one in 24" :key="one" :value="one - 1">{{ clock(one - 1) }}</option>
    </select>
    <span class="muted small">{{ theirs ? 'on their clock' : 'on the account’s clock' }}</span>
  </div>
</template>
