<script setup lang="ts">
/** A picture, or the place to put one: chosen from a file or dropped. */
defineProps<{ src: string; alt: string; width?: number; corner?: number }>()
const emit = defineEmits<{ taken: [src: string] }>()
const uploading = ref(false)
async function upload(file: File | undefined) {
  if (!file) return
  uploading.value = true
  const made = await ask<{ path: string }>(`/api/pictures?name=${encodeURIComponent(file.name)}`, {
    method: 'POST',
    body: file,
    headers: { 'Content-Type': 'application/octet-stream' },
  })
  uploading.value = false
  if (made) emit('taken', made.path)
}
</script>

<template>
  <img
    v-if="src"
    :src="src"
    :alt="alt"
    :style="{ width: `${width ?? 100}%`, borderRadius: `${corner ?? 0}px` }"
  />
  <label
    v-else
    class="flex h-36 cursor-pointer flex-wrap items-center justify-center gap-3 border border-dashed border-ink-300 bg-paper text-[13.5px] text-ink-700 focus-within:border-brass-500"
    style="font-family: var(--font-ui)"
    @dragover.prevent
    @drop.prevent="upload($event.dataTransfer?.files[0])"
  >
    <input
      type="file"
      accept="image/*"
      class="sr-only"
      aria-label="Choose a picture"
      @change="upload(($event.target as HTMLInputElement).files?.[0])"
    />
    <span class="btn btn-sm">Choose a picture</span
    >{{ uploading ? 'Making it to size…' : 'or drop it here' }}
  </label>
</template>
