<script setup lang="ts">
const store = useNotices()
</script>

<template>
  <div
    class="pointer-events-none fixed inset-x-0 bottom-4 z-50 flex flex-col items-center gap-2"
    aria-live="polite"
  >
    <div
      v-for="notice in store.notices"
      :key="notice.id"
      class="floats pointer-events-auto flex max-w-xl items-start gap-3 rounded-md border bg-sheet px-4 py-2.5"
      :class="notice.kind === 'refused' ? 'border-bad-600' : 'border-line'"
    >
      <svg
        v-if="notice.kind === 'refused'"
        width="12"
        height="12"
        viewBox="0 0 12 12"
        class="mt-1 flex-none"
        aria-hidden="true"
      >
        <rect x="1" y="1" width="10" height="10" rx="2" fill="#a5371f" />
      </svg>
      <span>{{ notice.text }}</span>
      <button
        v-if="notice.action"
        class="btn btn-sm"
        @click="(notice.action.run(), store.dismiss(notice.id))"
      >
        {{ notice.action.label }}
      </button>
      <button class="muted min-h-6 min-w-6" aria-label="Dismiss" @click="store.dismiss(notice.id)">
        ×
      </button>
    </div>
  </div>
</template>
