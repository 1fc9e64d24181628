<script setup lang="ts">
/** The sign of a kind of step on the map. */
defineProps<{ kind: 'end' | 'mail' | 'wait' | 'fork' | 'split' | 'do' | 'goal' }>()
</script>

<template>
  <svg width="34" height="30" viewBox="-17 -15 34 30" aria-hidden="true" fill="none">
    <rect
      v-if="kind === 'end'"
      x="-16"
      y="-7"
      width="32"
      height="14"
      rx="7"
      fill="var(--canvas-800)"
    />
    <g v-else-if="kind === 'mail'" stroke="var(--canvas-800)">
      <rect x="-14" y="-11" width="28" height="22" rx="3" fill="var(--sheet)" stroke-width="2.5" />
      <path d="M-13 -8l13 9 13-9" stroke-width="2" />
    </g>
    <g v-else-if="kind === 'wait'" stroke="var(--brass-600)" stroke-width="2.5">
      <circle r="10.5" fill="var(--sheet)" />
      <path d="M0 -5v5l4 3" stroke-width="2" />
    </g>
    <g v-else-if="kind === 'do'" stroke="var(--ink-700)" stroke-width="2.5">
      <rect x="-10" y="-10" width="20" height="20" rx="2" fill="var(--sheet)" />
      <path d="M-4.5 0.5l3.2 3.2 6-7" stroke-width="2" />
    </g>
    <g v-else-if="kind === 'goal'" stroke="var(--brass-700)" stroke-width="2.5">
      <circle r="11" fill="var(--sheet)" />
      <circle r="4.5" fill="var(--brass-500)" stroke="none" />
    </g>
    <g v-else stroke="var(--canvas-800)" stroke-width="2.5">
      <path d="M0 -13L13 0 0 13 -13 0Z" fill="var(--sheet)" />
      <path v-if="kind === 'split'" d="M0 5V0M0 0L-4 -4.5M0 0L4 -4.5" stroke-width="2" />
    </g>
  </svg>
</template>
