<script setup lang="ts">
/** The labels of something, small, as they stand in a list. */
defineProps<{ labels: readonly { id: number; name: string }[] }>()
</script>

<template>
  <span v-if="labels.length" class="flex flex-wrap gap-x-1 gap-y-0.5 font-normal">
    <span class="sr-only">Labels: </span>
    <span v-for="label in labels" :key="label.id" class="label-mark">{{ label.name }}</span>
  </span>
</template>
