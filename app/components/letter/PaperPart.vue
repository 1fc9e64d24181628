<script setup lang="ts">
import type { Part, Type } from '~~/core/letters/parts'
import HtmlTree, { type PlaceInHtml } from './html-tree'

/** A part of a block, as large as what goes out is where it is read. */
const props = defineProps<{ part: Part; leavesOut: (name: string) => boolean }>()
const emit = defineEmits<{ shape: [highForWide: number] }>()
defineSlots<{ place(place: PlaceInHtml): unknown }>()
const around = computed(() => {
  const { above, side, below, ground } = props.part.room
  return { padding: `${above}px ${side}px ${below}px`, background: ground }
})
const type = ({ font, size, line, ink, weight }: Type) => ({
  fontFamily: font,
  fontSize: `${size}px`,
  lineHeight: line,
  color: ink,
  fontWeight: weight,
})
const standing = {
  left: '0 auto 0 0',
  center: '0 auto',
  right: '0 0 0 auto',
}
/** No wider, with its border, than the room there is. */
const shown = computed(() => {
  if (props.part.kind !== 'picture') return {}
  const { width, corner, border } = props.part
  const lines = 2 * (Number.parseInt(border, 10) || 0)
  return {
    width: `min(${width}px, 100% - ${lines}px)`,
    borderRadius: `${corner}px`,
    border,
    margin: standing[props.part.align],
  }
})
/** Until a picture is there, a place is kept for it, so that what stands around it can be pressed and does not jump far. */
const there = ref(false)
watch(
  () => 'src' in props.part && props.part.src,
  () => (there.value = false),
)
function loaded(event: Event) {
  there.value = true
  const { naturalWidth, naturalHeight } = event.target as HTMLImageElement
  if (naturalWidth) emit('shape', naturalHeight / naturalWidth)
}
</script>

<template>
  <div class="[word-break:break-word]" :style="around">
    <div
      v-if="part.kind === 'words'"
      class="flow-root"
      :style="{ ...type(part.type), textAlign: part.align }"
    >
      <HtmlTree :html="part.html" :leaves-out="leavesOut"
        ><template #place="place"><slot name="place" v-bind="place" /></template
      ></HtmlTree>
    </div>
    <table
      v-else-if="part.kind === 'rows'"
      class="w-full border-collapse [&_td]:box-content"
      :style="type(part.type)"
    >
      <tbody>
        <HtmlTree rows :html="part.html" :leaves-out="leavesOut"
          ><template #place="place"><slot name="place" v-bind="place" /></template
        ></HtmlTree>
      </tbody>
    </table>
    <img
      v-else-if="part.kind === 'picture'"
      :src="part.src"
      :alt="part.alt"
      class="block"
      :class="!there && 'aspect-3/2 bg-canvas-50'"
      :style="shown"
      @load="loaded"
      @error="there = true"
    />
    <div
      v-else-if="part.kind === 'button'"
      class="table max-w-full text-center"
      :class="part.full && 'w-full'"
      :style="{
        ...type(part.type),
        background: part.accent ?? undefined,
        borderRadius: `${part.corner}px`,
        border: part.border,
        padding: part.within.map((px) => `${px}px`).join(' '),
        margin: standing[part.align],
      }"
    >
      <HtmlTree :html="part.html"
        ><template #place="place"><slot name="place" v-bind="place" /></template
      ></HtmlTree>
    </div>
    <button v-else-if="part.kind === 'line'" class="block w-full" aria-label="Divider">
      <span class="block border-t" :style="{ borderColor: part.color }" />
    </button>
    <button
      v-else
      class="block w-full"
      :style="{ height: `${part.height}px` }"
      aria-label="Space"
    />
  </div>
</template>
