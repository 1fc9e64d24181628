<script setup lang="ts">
/** A state: its own shape, and always its word. */
const props = defineProps<{ state: string }>()
const word = computed(() => props.state.charAt(0).toUpperCase() + props.state.slice(1))
</script>

<template>
  <span class="inline-flex items-center gap-1.5 text-[12.5px] text-ink-700">
    <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
      <circle
        v-if="['draft', 'waiting', 'counted', 'undone'].includes(state)"
        cx="6"
        cy="6"
        r="4.5"
        fill="none"
        stroke="#667064"
        stroke-width="1.5"
        stroke-dasharray="2 2"
      />
      <template v-else-if="state === 'scheduled'">
        <circle cx="6" cy="6" r="4.8" fill="none" stroke="#9a6b12" stroke-width="1.5" />
        <path d="M6 3.3V6l2 1.3" stroke="#9a6b12" stroke-width="1.5" fill="none" />
      </template>
      <template v-else-if="['sending', 'running', 'counting', 'undoing'].includes(state)">
        <circle cx="6" cy="6" r="4.8" fill="none" stroke="#d8e0bd" stroke-width="2" />
        <path d="M6 1.2A4.8 4.8 0 0 1 10.8 6" stroke="#4b5a28" stroke-width="2" fill="none" />
      </template>
      <template v-else-if="state === 'live'">
        <circle cx="6" cy="6" r="2.4" fill="#4b5a28" />
        <circle cx="6" cy="6" r="4.8" fill="none" stroke="#4b5a28" stroke-width="1.5" />
      </template>
      <circle v-else-if="state === 'sent' || state === 'done'" cx="6" cy="6" r="5" fill="#4b5a28" />
      <template v-else-if="state === 'paused'">
        <rect x="2" y="1.5" width="3" height="9" fill="#9a6b12" />
        <rect x="7" y="1.5" width="3" height="9" fill="#9a6b12" />
      </template>
      <rect
        v-else-if="state === 'ended'"
        x="1.5"
        y="1.5"
        width="9"
        height="9"
        rx="1.5"
        fill="#667064"
      />
      <path
        v-else-if="state === 'stopped' || state === 'failed' || state === 'cancelled'"
        d="M3.8 1h4.4L11 3.8v4.4L8.2 11H3.8L1 8.2V3.8z"
        fill="#a5371f"
      />
      <template v-else>
        <circle cx="6" cy="6" r="4.7" fill="none" stroke="#a5371f" stroke-width="1.6" />
        <path d="M2.8 9.2l6.4-6.4" stroke="#a5371f" stroke-width="1.6" />
      </template></svg
    >{{ word }}
  </span>
</template>
