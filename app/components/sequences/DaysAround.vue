<script setup lang="ts">
/** So many days before (less than 0) or after a date. */
const props = defineProps<{ days: number }>()
const emit = defineEmits<{ change: [days: number] }>()
const before = computed(() => props.days < 0)
function set(many: number, isBefore: boolean) {
  if (Number.isFinite(many) && many >= 0)
    emit('change', Math.min(366, Math.round(many)) * (isBefore ? -1 : 1))
}
</script>

<template>
  <div class="flex items-center gap-2">
    <KeptInput
      class="field field-sm w-16 text-right"
      type="number"
      min="0"
      max="366"
      aria-label="Days"
      :value="Math.abs(days)"
      @taken="set(Number($event), before)"
    />
    days
    <select
      class="field field-sm !w-auto"
      aria-label="Before or after"
      :value="before ? 'before' : 'after'"
      :disabled="days === 0"
      @change="set(Math.abs(days), ($event.target as HTMLSelectElement).value === 'before')"
    >
      <option value="before">before</option>
      <option value="after">after</option>
    </select>
  </div>
</template>
