<script setup lang="ts">
import { Redo2, Undo2 } from '@lucide/vue'

/** Back to before the last step, and on again. */
defineProps<{ past: boolean; future: boolean }>()
const emit = defineEmits<{ undo: []; redo: [] }>()
</script>

<template>
  <button
    class="btn btn-sm !px-1.5"
    aria-label="Undo"
    title="Undo"
    :disabled="!past"
    @click="emit('undo')"
  >
    <Undo2 :size="15" aria-hidden="true" />
  </button>
  <button
    class="btn btn-sm !px-1.5"
    aria-label="Redo"
    title="Redo"
    :disabled="!future"
    @click="emit('redo')"
  >
    <Redo2 :size="15" aria-hidden="true" />
  </button>
</template>
