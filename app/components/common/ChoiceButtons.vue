<script setup lang="ts" generic="T extends string | number | null">
/** One of a few, side by side; the chosen one is pressed. A count may stand behind each. */
defineProps<{ options: { value: T; name: string; count?: number }[]; label?: string }>()
const value = defineModel<T>({ required: true })
</script>

<template>
  <div class="flex flex-wrap gap-1" role="group" :aria-label="label">
    <button
      v-for="one in options"
      :key="one.value ?? ''"
      type="button"
      class="min-h-6 min-w-8 rounded border border-line px-2 text-[12.5px]"
      :class="value === one.value ? 'bg-canvas-200 font-semibold' : 'bg-sheet hover:bg-canvas-50'"
      :aria-pressed="value === one.value"
      @click="value = one.value"
    >
      {{ one.name }}
      <span v-if="one.count !== undefined" class="muted">{{ one.count }}</span>
    </button>
  </div>
</template>
