<script setup lang="ts">
import {
  compareLetters,
  conditionsOf,
  shownDocument,
  truthOf,
  type LetterChange,
  type Rendition,
} from '~~/core/letters'

/** What the readers of one rendition see and those of another don't. */
const props = defineProps<{ renditions: Rendition[]; nameOf: (i: number) => string }>()
const emit = defineEmits<{ close: [] }>()
const store = useMailing()
const one = ref(0)
const other = ref(1)
const read = (i: number) => {
  const { document, ...words } = store.letter!
  const conditions = conditionsOf(document)
  const truth = truthOf(props.renditions[i]!.truths[0]!, conditions.rules.length)
  return { ...words, document: shownDocument(document, truth, conditions) }
}
const changes = computed(() => compareLetters(read(one.value), read(other.value)))
const only = (what: LetterChange['what']) => changes.value.filter((change) => change.what === what)
const sides = computed(() => [
  { name: props.nameOf(one.value), parts: only('removed').map((part) => [part.name, part.before]) },
  { name: props.nameOf(other.value), parts: only('added').map((part) => [part.name, part.after]) },
])
const id = useId()
</script>

<template>
  <BaseDialog open title="What differs" @close="emit('close')">
    <div class="flex items-center gap-2">
      <label :for="`${id}-one`">Rendition</label>
      <select :id="`${id}-one`" v-model="one" class="field field-sm w-40">
        <option v-for="(rendition, i) in renditions" :key="i" :value="i">
          {{ nameOf(i) }}, {{ people(rendition.people) }}
        </option>
      </select>
      <label :for="`${id}-other`">and</label>
      <select :id="`${id}-other`" v-model="other" class="field field-sm w-40">
        <option v-for="(rendition, i) in renditions" :key="i" :value="i">
          {{ nameOf(i) }}, {{ people(rendition.people) }}
        </option>
      </select>
    </div>
    <div class="mt-3 grid grid-cols-2 gap-4">
      <section v-for="side in sides" :key="side.name" :aria-label="`Only in ${side.name}`">
        <h3 class="font-[600]">Only in {{ side.name }}</h3>
        <ul class="m-0 mt-1 list-none p-0">
          <li
            v-for="([name, words], i) in side.parts"
            :key="i"
            class="border-t border-line-soft py-1 first:border-0"
          >
            <b class="font-[560]">{{ name }}</b> <span class="muted">{{ words }}</span>
          </li>
        </ul>
        <p v-if="!side.parts.length" class="muted mt-1">Nothing.</p>
      </section>
    </div>
    <template #actions><button class="btn" @click="emit('close')">Close</button></template>
  </BaseDialog>
</template>
