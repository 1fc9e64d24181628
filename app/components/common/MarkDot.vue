<script setup lang="ts">
import type { MarkLevel } from '~~/core/proof'
defineProps<{ level: MarkLevel }>()
</script>

<template>
  <svg
    width="12"
    height="12"
    viewBox="0 0 12 12"
    class="mt-1 flex-none"
    role="img"
    :aria-label="level"
  >
    <rect v-if="level === 'blocker'" x="1" y="1" width="10" height="10" rx="2" fill="#a5371f" />
    <path
      v-else-if="level === 'caution'"
      d="M6 1.2l5 9H1z"
      fill="none"
      stroke="#9a6b12"
      stroke-width="1.6"
    />
    <circle v-else cx="6" cy="6" r="4.5" fill="none" stroke="#667064" stroke-width="1.5" />
  </svg>
</template>
