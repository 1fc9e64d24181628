<script setup lang="ts">
/**
 * How far down the first link of a rendition stands, measured on the letter as it is drawn wide and narrow.
 * The frames keep out scripts; that they are of our origin only lets us measure in them.
 */
const props = defineProps<{ mailing: number; truths: string }>()
const emit = defineEmits<{ measured: [fold: FoldPlaces] }>()
const { answer } = useAnswer<{ html: string }>(
  () => `/api/mailings/${props.mailing}/read-as?n=0${props.truths && `&truths=${props.truths}`}`,
  { live: false },
)
const found: FoldPlaces = { wide: undefined, narrow: undefined }
function measure(screen: keyof FoldPlaces, event: Event) {
  const drawn = (event.target as HTMLIFrameElement).contentDocument
  if (!drawn) return
  found[screen] = firstLinkIn(drawn)
  emit('measured', { ...found })
}
</script>

<template>
  <div v-if="answer" class="pointer-events-none fixed top-0 -left-[5000px]" aria-hidden="true">
    <iframe
      v-for="(width, screen) in foldWidths"
      :key="screen"
      :srcdoc="framed(answer.html)"
      sandbox="allow-same-origin"
      tabindex="-1"
      :title="`The letter ${screen}`"
      :style="{ width: `${width}px`, height: `${FOLD}px` }"
      @load="measure(screen, $event)"
    />
  </div>
</template>
