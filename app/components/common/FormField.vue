<script setup lang="ts">
/** A labelled field with its fault under it. */
defineProps<{ label: string; id: string; fault?: string | null | undefined; hint?: string }>()
</script>

<template>
  <div class="mb-3">
    <label :for="id" class="mb-1 block font-[560]">{{ label }}</label>
    <slot />
    <p v-if="hint && !fault" class="muted small mt-1">{{ hint }}</p>
    <p v-if="fault" :id="`${id}-fault`" class="fault mt-1" role="alert">{{ fault }}</p>
  </div>
</template>
