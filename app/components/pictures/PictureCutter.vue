<script setup lang="ts">
import { Cropper } from 'vue-advanced-cropper'
import 'vue-advanced-cropper/dist/style.css'
import type { LibraryPicture } from '~~/core/letters'

/** A part of a picture, turned as it should stand. The first one stays. */
const props = defineProps<{ picture: LibraryPicture }>()
const emit = defineEmits<{ close: []; made: [path: string] }>()
const shape = ref<number | null>(null)
const shapes = [
  { value: null, name: 'free' },
  { value: 1, name: 'square' },
  { value: 3 / 2, name: '3 to 2' },
  { value: 16 / 9, name: '16 to 9' },
  { value: 3, name: '3 to 1' },
]
const cropper = ref<InstanceType<typeof Cropper> | null>(null)
interface Size {
  width: number
  height: number
}
interface Cut {
  coordinates: Size & { left: number; top: number }
  /** As it came, before it is turned. */
  image: Size & { transforms: { rotate: number } }
}
const size = reactive({ width: props.picture.width, height: props.picture.height })
/** The part, by shares of the picture as it is turned. */
function shares({ coordinates, image }: Cut) {
  const turn = (((Math.round(image.transforms.rotate / 90) % 4) + 4) % 4) as 0 | 1 | 2 | 3
  const [width, height] = turn % 2 ? [image.height, image.width] : [image.width, image.height]
  const share = (part: number, of: number) => Math.min(1, Math.max(0, part / of))
  return {
    left: share(coordinates.left, width),
    top: share(coordinates.top, height),
    width: Math.max(0.001, share(coordinates.width, width)),
    height: Math.max(0.001, share(coordinates.height, height)),
    turn,
  }
}
function change({ coordinates }: Cut) {
  size.width = Math.round(coordinates.width)
  size.height = Math.round(coordinates.height)
}
/** At first all of it is kept. */
function whole({ imageSize, visibleArea }: { imageSize: Size; visibleArea?: Size }) {
  const { width, height } = visibleArea ?? imageSize
  return { width, height }
}
const turnRight = () => cropper.value?.rotate(90)
const busy = ref(false)
async function make() {
  busy.value = true
  const made = await act<{ path: string }>(
    `/api/pictures/${props.picture.id}/cut`,
    'POST',
    shares(cropper.value!.getResult() as unknown as Cut),
  )
  busy.value = false
  if (made) emit('made', made.path)
}
</script>

<template>
  <BaseDialog open :title="`Cut “${picture.name}”`" @close="emit('close')">
    <Cropper
      ref="cropper"
      class="h-[42vh] bg-ink-900"
      :debounce="false"
      :transitions="false"
      :src="picture.path"
      :stencil-props="shape ? { aspectRatio: shape } : {}"
      :default-size="whole"
      @change="change"
    />
    <div class="mt-3 flex flex-wrap items-center gap-2">
      <button type="button" class="btn btn-sm" @click="turnRight">Rotate right</button>
      <ChoiceButtons v-model="shape" label="Shape" :options="shapes" />
      <span class="muted small ml-auto">{{ size.width }} × {{ size.height }}</span>
    </div>
    <template #actions
      ><button class="btn" @click="emit('close')">Cancel</button
      ><button class="btn btn-go" :disabled="busy" @click="make">Crop</button></template
    >
  </BaseDialog>
</template>
