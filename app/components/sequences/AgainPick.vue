<script setup lang="ts">
import type { Again } from '~~/core/sequences'

/** Whether who was inside may come in anew. */
const props = defineProps<{ again: Again }>()
const emit = defineEmits<{ change: [again: Again] }>()
const choices: Record<Again['is'], string> = {
  never: 'never: once a person',
  finished: 'once they finished',
  days: 'after some days',
  each: 'each time, also while they are inside',
}
function choose(event: Event) {
  const is = (event.target as HTMLSelectElement).value as Again['is']
  emit('change', is === 'days' ? { is, days: 30 } : { is })
}
function setDays(days: number) {
  if (Number.isFinite(days) && days >= 1)
    emit('change', { is: 'days', days: Math.min(3_660, Math.round(days)) })
}
const id = useId()
</script>

<template>
  <div class="grid gap-1">
    <label class="muted small" :for="id">Again</label>
    <select :id="id" class="field field-sm" :value="props.again.is" @change="choose">
      <option v-for="(words, is) in choices" :key="is" :value="is">{{ words }}</option>
    </select>
    <div v-if="again.is === 'days'" class="flex items-center gap-2">
      <KeptInput
        class="field field-sm w-20 text-right"
        type="number"
        min="1"
        max="3660"
        aria-label="After how many days"
        :value="again.days"
        @taken="setDays(Number($event))"
      />
      <span class="muted small">days since they came in, once they are out</span>
    </div>
  </div>
</template>
