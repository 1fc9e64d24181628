<script setup lang="ts">
/**
 * Plain words of a block, written where they stand. What they take up is drawn as it goes out; the field lies over it,
 * so that its lines break alike. `lines`: whether they may have several lines of their own; `beside`: whether they stand in
 * one line with others, `struck`: struck out.
 */
const props = defineProps<{
  value: string
  label: string
  prompt?: string
  lines?: boolean
  beside?: boolean
  struck?: boolean
}>()
const emit = defineEmits<{ change: [value: string] }>()
const typed = (event: Event) => {
  const field = event.target as HTMLTextAreaElement
  emit('change', props.lines ? field.value : field.value.replace(/\s*\n\s*/g, ' '))
}
function key(event: KeyboardEvent) {
  if (event.key === 'Enter' && !props.lines) event.preventDefault()
}
/** A last line without words has its height too. */
const taken = computed(() => (props.value || props.prompt || ' ') + (props.lines ? '\u200b' : ''))
</script>

<template>
  <span
    class="relative whitespace-normal"
    :class="[beside ? 'inline-block' : 'block', struck && 'line-through']"
  >
    <span
      class="invisible block min-h-[1lh]"
      :class="lines && 'whitespace-pre-wrap'"
      aria-hidden="true"
      >{{ taken }}</span
    >
    <textarea
      class="absolute inset-x-0 -inset-y-0.5 h-[calc(100%+4px)] w-[calc(100%+1px)] resize-none py-0.5 overflow-hidden bg-transparent [font:inherit] text-inherit outline-none placeholder:text-current placeholder:opacity-70"
      style="
        text-align: inherit;
        text-decoration: inherit;
        line-height: inherit;
        letter-spacing: inherit;
      "
      rows="1"
      :value="value"
      :placeholder="prompt"
      :aria-label="label"
      :maxlength="lines ? undefined : 500"
      @input="typed"
      @keydown="key"
    />
  </span>
</template>
