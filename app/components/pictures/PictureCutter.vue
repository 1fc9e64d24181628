<script setup lang="ts">
import { Cropper } from 'vue-advanced-cropper'
import 'vue-advanced-cropper/dist/style.css'
import type { LibraryPicture } from '~~/server/utils/picture'

/** A part of a picture, turned as it should stand. The first one stays. */
const props = defineProps<{ picture: LibraryPicture }>()
const emit = defineEmits<{ close: []; made: [path: string] }>()
const turn = ref(0)
const shape = ref<number | null>(null)
const shapes = [
  [null, 'free'],
  [1, 'square'],
  [3 / 2, '3 to 2'],
  [16 / 9, '16 to 9'],
  [3, '3 to 1'],
] as const
/** What is kept, by shares of the picture as it is turned. */
const kept = reactive({ left: 0, top: 0, width: 1, height: 1 })
const cropper = ref<InstanceType<typeof Cropper> | null>(null)
interface Size {
  width: number
  height: number
}
interface Change {
  coordinates: { left: number; top: number; width: number; height: number }
  image: { width: number; height: number }
}
const size = reactive({ width: props.picture.width, height: props.picture.height })
const sideways = computed(() => turn.value % 2 === 1)
function change({ coordinates, image }: Change) {
  // The image is measured as it came; the coordinates as it is turned.
  const [width, height] = sideways.value ? [image.height, image.width] : [image.width, image.height]
  const share = (part: number, of: number) => Math.min(1, Math.max(0, part / of))
  kept.left = share(coordinates.left, width)
  kept.top = share(coordinates.top, height)
  kept.width = Math.max(0.001, share(coordinates.width, width))
  kept.height = Math.max(0.001, share(coordinates.height, height))
  size.width = Math.round(coordinates.width)
  size.height = Math.round(coordinates.height)
}
/** At first all of it is kept. */
function whole({ imageSize, visibleArea }: { imageSize: Size; visibleArea?: Size }) {
  const { width, height } = visibleArea ?? imageSize
  return { width, height }
}
function turnRight() {
  cropper.value?.rotate(90)
  turn.value = (turn.value + 1) % 4
}
const busy = ref(false)
async function make() {
  busy.value = true
  const made = await ask<{ path: string }>(`/api/pictures/${props.picture.id}/cut`, {
    method: 'POST',
    body: { ...kept, turn: turn.value },
  })
  busy.value = false
  if (made) emit('made', made.path)
}
</script>

<template>
  <BaseDialog open :title="`Cut “${picture.name}”`" @close="emit('close')">
    <Cropper
      ref="cropper"
      class="h-[42vh] bg-ink-900"
      :src="picture.path"
      :stencil-props="shape ? { aspectRatio: shape } : {}"
      :default-size="whole"
      @change="change"
    />
    <div class="mt-3 flex flex-wrap items-center gap-2">
      <button type="button" class="btn btn-sm" @click="turnRight">Turn right</button>
      <span class="flex gap-1" role="group" aria-label="Shape">
        <button
          v-for="[ratio, name] in shapes"
          :key="name"
          type="button"
          class="min-h-6 rounded border border-line px-1.5 text-[12.5px]"
          :class="shape === ratio && 'bg-canvas-200 font-semibold'"
          :aria-pressed="shape === ratio"
          @click="shape = ratio"
        >
          {{ name }}
        </button>
      </span>
      <span class="muted small ml-auto">{{ size.width }} × {{ size.height }}</span>
    </div>
    <template #actions
      ><button class="btn" @click="emit('close')">Cancel</button
      ><button class="btn btn-go" :disabled="busy" @click="make">Keep the part</button></template
    >
  </BaseDialog>
</template>
