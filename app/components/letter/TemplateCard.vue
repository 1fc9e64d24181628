<script setup lang="ts">
/** A template with a small picture of its letter. `path` answers its HTML. */
defineProps<{ path: string; name: string; about: string }>()
const emit = defineEmits<{ choose: [] }>()
</script>

<template>
  <button
    type="button"
    class="sheet flex flex-col overflow-hidden text-left hover:border-brass-500 focus-visible:border-brass-500"
    @click="emit('choose')"
  >
    <HtmlThumb :path="path" :title="name" />
    <span class="block px-3.5 py-2.5">
      <b class="font-[600]">{{ name }}</b>
      <span class="muted small block">{{ about }}</span>
    </span>
  </button>
</template>
