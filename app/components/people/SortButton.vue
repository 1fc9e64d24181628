<script setup lang="ts">
/** A column's name that sorts by it; once more turns the order round. */
defineProps<{ name: string; state: 'up' | 'down' | null }>()
const emit = defineEmits<{ sort: [] }>()
</script>

<template>
  <button
    type="button"
    class="flex min-h-6 items-center gap-1 text-left"
    :class="state && 'font-semibold text-ink-900'"
    :aria-label="`Sort by ${name}${state ? `, now ${state === 'down' ? 'descending' : 'ascending'}` : ''}`"
    @click="emit('sort')"
  >
    {{ name }}<span v-if="state" aria-hidden="true">{{ state === 'down' ? '↓' : '↑' }}</span>
  </button>
</template>
