<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { watchDebounced } from '@vueuse/core'
import { askables, findAskables, type Askable, type Rule } from '~~/core/segments'

/** Adds a rule by typing what one knows: finds everything that can be asked. */
defineProps<{ label?: string; small?: boolean }>()
const emit = defineEmits<{ add: [rule: Rule] }>()
const store = useSegment()
const typed = ref('')
const all = computed(() => (store.vocabulary ? askables(store.vocabulary) : []))
/** Values on file, as they are found; they come a moment after what can be asked at all. */
const values = ref<{ of: string; askables: Askable[] }>({ of: '', askables: [] })
watchDebounced(
  () => typed.value.trim(),
  async (text) => {
    if (text.length < 2) return
    const path = `/api/segments/values-found?text=${encodeURIComponent(text)}`
    const got = await request<ValueFound[]>(path).catch(() => [])
    if (text === typed.value.trim()) values.value = { of: text, askables: got.map(asksFor) }
  },
  { debounce: 150 },
)
const found = computed(() => [
  ...findAskables(all.value, typed.value, 12),
  ...(values.value.of === typed.value.trim() ? values.value.askables : []),
])
interface ValueFound {
  field: string
  name: string
  value: string
  several: boolean
}
function asksFor({ field, name, value, several }: ValueFound): Askable {
  return {
    words: `${name} ${several ? 'includes' : 'is'} ${value}`,
    also: '',
    rule: { kind: 'field', key: field, test: { is: several ? 'includes' : 'equal', text: value } },
  }
}
function add(askable: Askable | null) {
  if (askable) emit('add', askable.rule)
  typed.value = ''
}
</script>

<template>
  <Combobox as="div" class="relative" :model-value="null" nullable @update:model-value="add">
    <ComboboxInput
      class="w-full bg-transparent outline-offset-[-2px] placeholder:text-ink-500"
      :class="small ? 'h-[26px] px-2 text-[12.5px]' : 'h-[34px] px-2'"
      :aria-label="label ?? 'Add a rule'"
      :placeholder="
        small
          ? 'Add to this group'
          : 'Add a rule: type what you know, e.g. “bought twice”, “town”, “birthday”'
      "
      :display-value="() => typed"
      @change="typed = ($event.target as HTMLInputElement).value"
      @focus="($event.target as HTMLInputElement).select()"
    />
    <ComboboxOptions
      class="floats absolute z-30 mt-1 max-h-80 w-[380px] overflow-auto rounded-md border border-line bg-sheet py-1"
    >
      <li v-if="found.length === 0" class="muted px-3 py-2">
        Nothing on file is called that. Try a field, a list, “opened” or “bought”.
      </li>
      <ComboboxOption
        v-for="one in found"
        :key="one.words"
        v-slot="{ active }"
        :value="one"
        as="template"
      >
        <li class="cursor-pointer px-3 py-1.5" :class="active && 'bg-canvas-50'">
          {{ one.words }}
        </li>
      </ComboboxOption>
    </ComboboxOptions>
  </Combobox>
</template>
