<script setup lang="ts">
import type { RichText } from '~~/core/letters'
import { drawText } from './text-schema'

/** A text that nobody is writing in, drawn as its editor would draw it. */
const props = defineProps<{ text: RichText; label: string; singleLine?: boolean }>()
const paper = ref<HTMLElement | null>(null)
function draw() {
  paper.value!.replaceChildren(drawText(props.text))
  // An empty line has its height from a break, as in an editor.
  for (const line of paper.value!.querySelectorAll('p:empty'))
    line.append(document.createElement('br'))
}
onMounted(draw)
watch(() => props.text, draw)
</script>

<template>
  <div
    ref="paper"
    class="paper-text whitespace-break-spaces"
    :class="singleLine && 'one-line'"
    role="textbox"
    tabindex="0"
    :aria-label="label"
    :aria-multiline="!singleLine"
    aria-readonly="true"
  />
</template>
