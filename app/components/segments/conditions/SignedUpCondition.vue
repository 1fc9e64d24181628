<script setup lang="ts">
import type { ConditionOf, TimeComparison } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'signed-up'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'signed-up'>] }>()
const { set, valueOf, vocabulary } = conditionChips<'signed-up'>(props, emit)
/** One that was deleted since is still what the condition asks for. */
const gone = computed(() => {
  const { signUpId } = props.condition
  return signUpId !== null && !vocabulary.value.signUps.some(({ id }) => id === signUpId)
    ? signUpId
    : null
})
</script>

<template>
  <span class="chip chip-subject">Signed up by</span>
  <select
    class="chip"
    aria-label="Which sign-up"
    :value="condition.signUpId ?? ''"
    @change="set({ signUpId: valueOf($event) === '' ? null : Number(valueOf($event)) })"
  >
    <option value="">any form</option>
    <option v-if="gone !== null" :value="gone">one that is deleted</option>
    <option v-for="one in vocabulary.signUps" :key="one.id" :value="one.id">{{ one.name }}</option>
  </select>
  <TimeChips
    ever
    :when="condition.since"
    @change="(since: TimeComparison | null) => set({ since })"
  />
</template>
