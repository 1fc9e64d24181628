<script setup lang="ts">
/** Emoji by their names. The names come when the picker is opened. */
const emit = defineEmits<{ choose: [emoji: string] }>()
const open = ref(false)
const words = ref('')
const known = shallowRef<{ emoji: string; name: string }[]>([])
const input = ref<HTMLInputElement | null>(null)
async function toggle() {
  open.value = !open.value
  if (!open.value) return
  words.value = ''
  await nextTick()
  input.value?.focus()
  if (known.value.length) return
  const { default: all } = await import('unicode-emoji-json/data-by-emoji.json')
  known.value = Object.entries(all as Record<string, { name: string }>).map(
    ([emoji, { name }]) => ({
      emoji,
      name,
    }),
  )
}
const found = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return known.value.filter(({ name }) => wanted.every((word) => name.includes(word))).slice(0, 40)
})
function choose(emoji: string) {
  open.value = false
  emit('choose', emoji)
}
function left(event: FocusEvent) {
  const to = event.relatedTarget as Node | null
  if (to && !(event.currentTarget as HTMLElement).contains(to)) open.value = false
}
</script>

<template>
  <span class="contents" @focusout="left" @keydown.escape.stop="open = false">
    <button type="button" class="h-7 px-2" :aria-expanded="open" @mousedown.prevent @click="toggle">
      Emoji
    </button>
    <span v-if="open" class="block basis-full border-t border-line-soft p-2">
      <input
        ref="input"
        v-model="words"
        class="field field-sm"
        placeholder="by name: kite, sun, thank"
        aria-label="Name of the emoji"
        @keydown.enter.prevent="found[0] && choose(found[0].emoji)"
      />
      <span
        class="mt-1.5 grid max-h-40 grid-cols-8 overflow-auto"
        role="listbox"
        aria-label="Emoji"
      >
        <button
          v-for="one in found"
          :key="one.emoji"
          type="button"
          role="option"
          aria-selected="false"
          class="h-7 w-7 rounded text-[17px] hover:bg-brass-100"
          :aria-label="one.name"
          :title="one.name"
          @mousedown.prevent
          @click="choose(one.emoji)"
        >
          {{ one.emoji }}
        </button>
      </span>
      <span v-if="known.length && !found.length" class="muted block">None is called that.</span>
    </span>
  </span>
</template>
