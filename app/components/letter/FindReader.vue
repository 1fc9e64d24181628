<script setup lang="ts">
/** Finds a person by part of their name or address, to read the letter as they would. */
interface Found {
  id: number
  address: string
  name: string
}
const emit = defineEmits<{ choose: [id: number] }>()
const open = ref(false)
const words = ref('')
const at = ref(0)
const input = ref<HTMLInputElement | null>(null)
const { answer } = useAnswer<{ people: Found[] }>(
  () =>
    open.value && words.value.trim().length > 1
      ? `/api/people?search=${encodeURIComponent(words.value.trim())}`
      : null,
  { live: false },
)
const found = computed(() =>
  words.value.trim().length > 1 ? (answer.value?.people ?? []).slice(0, 8) : [],
)
async function begin() {
  open.value = true
  words.value = ''
  await nextTick()
  input.value?.focus()
}
function choose(person: Found | undefined) {
  if (!person) return
  open.value = false
  emit('choose', person.id)
}
function key(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') at.value = Math.min(found.value.length - 1, at.value + 1)
  else if (event.key === 'ArrowUp') at.value = Math.max(0, at.value - 1)
  else if (event.key === 'Enter') choose(found.value[at.value])
  else if (event.key === 'Escape') open.value = false
  else return
  event.preventDefault()
}
</script>

<template>
  <span class="relative">
    <button v-if="!open" type="button" class="link min-h-6" @click="begin">Find…</button>
    <template v-else>
      <input
        ref="input"
        v-model="words"
        class="field field-sm !h-6 w-44"
        role="combobox"
        aria-label="Read as whom"
        aria-controls="found-readers"
        :aria-expanded="found.length > 0"
        placeholder="name or address"
        @input="at = 0"
        @blur="open = false"
        @keydown="key"
      />
      <ul
        v-if="found.length"
        id="found-readers"
        role="listbox"
        aria-label="People"
        class="floats absolute left-0 z-30 m-0 mt-1 w-[300px] list-none rounded-md border border-line bg-sheet p-1.5"
      >
        <li
          v-for="(person, i) in found"
          :key="person.id"
          role="option"
          :aria-selected="i === at"
          class="flex cursor-pointer justify-between gap-3 rounded px-2 py-1"
          :class="i === at && 'bg-brass-100'"
          @mousedown.prevent="choose(person)"
          @mousemove="at = i"
        >
          <span class="truncate">{{ person.name || person.address }}</span><span
            v-if="person.name"
            class="muted small truncate"
            >{{ person.address }}</span
          >
        </li>
      </ul>
      <span
        v-else-if="words.trim().length > 1 && answer"
        class="floats muted absolute left-0 z-30 mt-1 w-[220px] rounded-md border border-line bg-sheet p-2"
        >Nobody is called that.</span
      >
    </template>
  </span>
</template>
