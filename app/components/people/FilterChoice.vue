<script setup lang="ts">
/** One of the things the table of people is narrowed down by; empty: not by this. */
defineProps<{ name: string; all: { id: number; name: string }[]; chosen: string }>()
const emit = defineEmits<{ choose: [id: string] }>()
</script>

<template>
  <div class="small flex flex-col">
    <span class="muted" aria-hidden="true">{{ name }}</span>
    <select
      :aria-label="`Filter by ${name.toLowerCase()}`"
      class="field field-sm w-28"
      :class="chosen && 'border-brass-500 text-ink-900'"
      :value="chosen"
      @change="emit('choose', ($event.target as HTMLSelectElement).value)"
    >
      <option value="">any</option>
      <option v-for="one in all" :key="one.id" :value="String(one.id)">{{ one.name }}</option>
    </select>
  </div>
</template>
