<script setup lang="ts">
import type { ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'source'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'source'>] }>()
const { set, valueOf, vocabulary } = conditionChips<'source'>(props, emit)
const ways = {
  import: 'an import',
  form: 'a form',
  api: 'the API',
  hand: 'hand',
  unknown: 'a way that was not kept',
}
/** An import that is not among the latest is still what the condition asks for. */
const older = computed(() => {
  const { importId } = props.condition
  return importId !== null && !vocabulary.value.imports.some(({ id }) => id === importId)
    ? importId
    : null
})
</script>

<template>
  <span class="chip chip-subject">Came by</span>
  <select
    class="chip"
    aria-label="By which way"
    :value="condition.from"
    @change="set({ from: valueOf($event), importId: null })"
  >
    <option v-for="(words, way) in ways" :key="way" :value="way">{{ words }}</option>
  </select>
  <select
    v-if="condition.from === 'import'"
    class="chip"
    aria-label="Which import"
    :value="condition.importId ?? ''"
    @change="set({ importId: valueOf($event) === '' ? null : Number(valueOf($event)) })"
  >
    <option value="">any</option>
    <option v-if="older !== null" :value="older">import {{ older }}</option>
    <option v-for="one in vocabulary.imports" :key="one.id" :value="one.id">
      “{{ one.name }}”
    </option>
  </select>
</template>
