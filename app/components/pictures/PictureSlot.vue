<script setup lang="ts">
import type { LibraryPicture } from '~~/core/letters'

/** The place to put a picture: from a file, dropped, pasted, or out of the library. */
const emit = defineEmits<{ taken: [src: string, alt: string] }>()
const uploading = ref(false)
const choosing = ref(false)
async function upload(file: File | undefined) {
  if (!file) return
  uploading.value = true
  const made = await act<{ path: string }>(
    `/api/pictures?name=${encodeURIComponent(file.name)}`,
    'POST',
    file,
  )
  uploading.value = false
  if (made) emit('taken', made.path, '')
}
function take(picture: LibraryPicture) {
  choosing.value = false
  emit('taken', picture.path, picture.alt)
}
</script>

<template>
  <div
    class="flex min-h-36 flex-wrap items-center justify-center gap-2.5 border border-dashed border-ink-300 bg-paper p-3 text-[13.5px] text-ink-700 focus-within:border-brass-500"
    style="font-family: var(--font-ui)"
    @dragover.prevent
    @drop.prevent="upload($event.dataTransfer?.files[0])"
    @paste="upload($event.clipboardData?.files[0])"
  >
    <label class="btn btn-sm cursor-pointer focus-within:outline-2">
      Choose a picture<input
        type="file"
        accept="image/*"
        class="sr-only"
        aria-label="Choose a picture"
        @change="upload(($event.target as HTMLInputElement).files?.[0])"
      />
    </label>
    <button type="button" class="btn btn-sm" @click="choosing = true">From the library</button>
    <span>{{ uploading ? 'Making it to size…' : 'or drop it here' }}</span>
  </div>
  <BaseDialog v-if="choosing" open title="Pictures" @close="choosing = false">
    <PictureLibrary choosing @choose="take" />
    <template #actions><button class="btn" @click="choosing = false">Cancel</button></template>
  </BaseDialog>
</template>
