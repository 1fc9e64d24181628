<script setup lang="ts">
import { languages, type ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'language'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'language'>] }>()
const { set, valueOf } = conditionChips<'language'>(props, emit)
const names = new Intl.DisplayNames('en', { type: 'language' })
const others = computed(() => languages.filter((code) => !props.condition.of.includes(code)))
function without(code: string) {
  const of = props.condition.of.filter((one) => one !== code)
  if (of.length) set({ of })
}
function add(code: string) {
  set({ of: languages.filter((one) => one === code || props.condition.of.includes(one)) })
}
</script>

<template>
  <span class="chip chip-subject">Language is</span>
  <span v-for="code in condition.of" :key="code" class="chip flex items-center gap-1">
    {{ names.of(code) }}
    <button
      v-if="condition.of.length > 1"
      type="button"
      :aria-label="`Not ${names.of(code)}`"
      @click="without(code)"
    >
      ×
    </button>
  </span>
  <select class="chip" aria-label="Another language" value="" @change="add(valueOf($event))">
    <option value="" disabled>or</option>
    <option v-for="code in others" :key="code" :value="code">{{ names.of(code) }}</option>
  </select>
  <span class="muted" title="By their field “language”, or else by the country of their address.">
    by field or address
  </span>
</template>
