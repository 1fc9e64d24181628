<script setup lang="ts">
import {
  Combobox,
  ComboboxButton,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
} from '@headlessui/vue'
import { ChevronDown } from '@lucide/vue'
import { zones } from '~~/core/time'

/** The account's time zone, out of all there are; found by a part of its name. */
const props = defineProps<{ id: string; disabled?: boolean }>()
const zone = defineModel<string>({ required: true })
const words = ref('')
const live = useLive()
const all = computed(() => zones(live.now))
const MOST = 60
const found = computed(() => {
  const wanted = words.value
    .toLowerCase()
    .replace(/[_\s]+/g, ' ')
    .trim()
  const fits = all.value.filter(({ words: w }) => w.includes(wanted))
  // A place whose name begins so comes before one that only has the letters in it.
  const begins = ({ words: w }: { words: string }) =>
    w.startsWith(wanted) || w.includes(`/${wanted}`) || w.includes(` ${wanted}`)
  fits.sort((a, b) => Number(begins(b)) - Number(begins(a)))
  return fits.slice(0, MOST)
})
function type(typed: string) {
  words.value = typed
  // Who writes a whole name has chosen it.
  const exactly = all.value.find(({ name }) => name.toLowerCase() === typed.trim().toLowerCase())
  if (exactly) zone.value = exactly.name
}
</script>

<template>
  <Combobox v-model="zone" :disabled="props.disabled" as="div" class="relative">
    <ComboboxInput
      :id="props.id"
      class="field !pr-8"
      autocomplete="off"
      spellcheck="false"
      :display-value="() => zone"
      @change="type(($event.target as HTMLInputElement).value)"
      @focus="words = ''"
    />
    <ComboboxButton
      class="icon-btn absolute inset-y-0 right-1 my-auto"
      aria-label="Time zone"
      @click="words = ''"
    >
      <ChevronDown :size="15" aria-hidden="true" />
    </ComboboxButton>
    <ComboboxOptions
      class="floats absolute z-40 mt-1 max-h-64 w-full overflow-auto rounded-md border border-line bg-sheet py-1"
    >
      <ComboboxOption
        v-for="one in found"
        :key="one.name"
        v-slot="{ active, selected }"
        :value="one.name"
        as="template"
      >
        <li
          class="flex min-h-7 cursor-pointer items-center justify-between gap-3 px-2.5"
          :class="[active && 'bg-brass-100', selected && 'font-semibold']"
        >
          <span>{{ one.name.replaceAll('_', ' ') }}</span><span class="muted small">{{
            one.offset
          }}</span>
        </li>
      </ComboboxOption>
      <li v-if="!found.length" class="muted px-2.5 py-1.5">No time zone is called so.</li>
    </ComboboxOptions>
  </Combobox>
</template>
