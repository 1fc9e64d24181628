<script setup lang="ts">
const props = defineProps<{ done: number; total: number; label: string }>()
const share = computed(() => (props.total > 0 ? Math.min(1, props.done / props.total) : 0))
</script>

<template>
  <div
    class="h-2 w-full overflow-hidden rounded bg-line-soft"
    role="progressbar"
    :aria-label="label"
    :aria-valuenow="Math.round(share * 100)"
    aria-valuemin="0"
    aria-valuemax="100"
  >
    <div class="h-full bg-canvas-500 transition-[width]" :style="{ width: `${share * 100}%` }" />
  </div>
</template>
