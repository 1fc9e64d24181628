<script setup lang="ts">
import { inUnits, waitUnits } from './waits'

/** A length of time in days, hours or minutes. */
const props = defineProps<{ label: string; ms: number; most: number }>()
const emit = defineEmits<{ change: [ms: number] }>()
const length = computed(() => inUnits(props.ms))
function set(n: number, unit: number) {
  if (Number.isFinite(n) && n >= 1) emit('change', Math.min(props.most, Math.round(n) * unit))
}
</script>

<template>
  <div class="flex gap-2">
    <KeptInput
      class="field field-sm w-20 text-right"
      type="number"
      min="1"
      :aria-label="label"
      :value="length.n"
      @taken="set(Number($event), length.unit.ms)"
    />
    <select
      class="field field-sm !w-auto"
      aria-label="Unit"
      :value="length.unit.ms"
      @change="set(length.n, Number(($event.target as HTMLSelectElement).value))"
    >
      <option v-for="unit in waitUnits" :key="unit.ms" :value="unit.ms">{{ unit.many }}</option>
    </select>
  </div>
</template>
