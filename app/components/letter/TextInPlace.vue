<script setup lang="ts">
import { isEmptyText, type RichText } from '~~/core/letters'

/**
 * A text of the letter, written where it stands. Only the one that is chosen or pointed at has an
 * editor: each editor listens to every key in the document, and a long letter has a hundred texts.
 */
const props = defineProps<{
  text: RichText
  label: string
  singleLine?: boolean
  chosen: boolean
}>()
defineEmits<{ change: [text: RichText]; slash: [] }>()
const pointedAt = ref(false)
/** Where the writer came in before there was an editor to take them. */
const entered = ref<'start' | { left: number; top: number } | null>(null)
const live = computed(() => props.chosen || pointedAt.value || entered.value !== null)
watch(
  () => props.chosen,
  (chosen) => chosen || (entered.value = null),
)
function press(event: MouseEvent) {
  if (event.shiftKey || event.ctrlKey || event.metaKey) return
  event.preventDefault()
  entered.value = { left: event.clientX, top: event.clientY }
}
</script>

<template>
  <div class="relative" @pointerenter="pointedAt = true" @pointerleave="pointedAt = false">
    <TextEditor
      v-if="live"
      :text="text"
      :label="label"
      :single-line="singleLine"
      :chosen="chosen"
      :entered="entered"
      @change="$emit('change', $event)"
      @slash="$emit('slash')"
    />
    <TextStill
      v-else
      :text="text"
      :label="label"
      :single-line="singleLine"
      @mousedown="press"
      @focus="entered = 'start'"
    />
    <span
      v-if="isEmptyText(text)"
      class="pointer-events-none absolute top-0 left-0 font-normal text-ink-500"
      >{{ label === 'Heading' ? 'Heading' : 'Write, or type / to insert a block' }}</span
    >
  </div>
</template>
