<script setup lang="ts">
import { isFoundBy } from '~~/core/words'
import { blockKinds, type BlockKind } from '~~/core/letters'
import type { Stamp } from '~~/core/letters'

/** The line between two blocks, with its "+": what is inserted here comes here. Stamps come between rows only. */
const props = defineProps<{ open: boolean; label?: string; inColumn?: boolean }>()
const emit = defineEmits<{
  open: []
  close: []
  choose: [kind: BlockKind]
  stamp: [stamp: Stamp]
}>()
const stamps = useStamps()
const words = ref('')
const at = ref(0)
const input = ref<HTMLInputElement | null>(null)
const offered = computed(() => [
  ...blockKinds
    .filter(({ kind }) => kind !== 'footer')
    .map(({ kind, name, about }) => ({
      key: kind as string,
      name,
      about,
      take: () => emit('choose', kind),
    })),
  ...(props.inColumn ? [] : stamps.stamps).map((stamp) => ({
    key: `stamp ${stamp.id}`,
    name: stamp.name,
    about: 'stamp',
    take: () => emit('stamp', stamp),
  })),
])
const found = computed(() =>
  offered.value.filter(
    ({ name, about }) =>
      isFoundBy(name, words.value) || about.toLowerCase().includes(words.value.toLowerCase()),
  ),
)
watch(
  () => props.open,
  async (open) => {
    if (!open) return
    words.value = ''
    at.value = 0
    await nextTick()
    input.value?.focus()
  },
)
function key(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') at.value = Math.min(found.value.length - 1, at.value + 1)
  else if (event.key === 'ArrowUp') at.value = Math.max(0, at.value - 1)
  else if (event.key === 'Enter') found.value[at.value]?.take()
  else if (event.key === 'Escape') emit('close')
  else return
  event.preventDefault()
}
function left(event: FocusEvent) {
  if (!(event.currentTarget as HTMLElement).contains(event.relatedTarget as Node | null))
    emit('close')
}
</script>

<template>
  <div
    class="group relative z-10 h-0"
    :class="inColumn && '-top-3'"
    style="font-family: var(--font-ui)"
  >
    <div
      class="pointer-events-none absolute inset-x-9 top-0 border-t-2 border-dashed border-brass-500"
      :class="!open && 'invisible group-focus-within:visible group-hover:visible'"
    />
    <button
      class="absolute left-1/2 -mt-3 -ml-3 h-6 w-6 rounded-full bg-brass-600 text-[15px] leading-6 text-white"
      :class="
        !open &&
        'not-group-hover:not-focus:bg-transparent not-group-hover:not-focus:text-transparent'
      "
      :aria-label="label ?? 'Insert a block here'"
      @click="emit('open')"
    >
      +
    </button>
    <div
      v-if="open"
      class="floats absolute left-1/2 mt-4 -ml-[130px] w-[260px] rounded-md border border-line bg-sheet p-1.5 text-[13.5px] text-ink-900"
      @focusout="left"
    >
      <input
        ref="input"
        v-model="words"
        class="field field-sm"
        placeholder="Which block"
        aria-label="Which block"
        role="combobox"
        aria-expanded="true"
        aria-controls="insert-kinds"
        @input="at = 0"
        @keydown="key"
      />
      <ul id="insert-kinds" role="listbox" aria-label="Blocks" class="mt-1 max-h-72 overflow-auto">
        <li
          v-for="(one, i) in found"
          :key="one.key"
          role="option"
          :aria-selected="i === at"
          class="flex cursor-pointer justify-between rounded px-2 py-1"
          :class="i === at && 'bg-brass-100'"
          @mousedown.prevent="one.take()"
          @mousemove="at = i"
        >
          <span class="truncate">{{ one.name }}</span><span class="muted small flex-none pl-2">{{
            one.about
          }}</span>
        </li>
      </ul>
      <p v-if="!found.length" class="muted small px-2 py-1">No block is called that.</p>
    </div>
  </div>
</template>
